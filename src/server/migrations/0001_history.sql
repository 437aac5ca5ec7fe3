CREATE TABLE `meta` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `states` (
	`variant_id` text NOT NULL,
	`revision` integer NOT NULL,
	`name` text NOT NULL,
	PRIMARY KEY(`variant_id`, `revision`),
	FOREIGN KEY (`variant_id`) REFERENCES `variants`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `snapshots` ADD `made_at` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `steps` ADD `key` text;--> statement-breakpoint
ALTER TABLE `steps` ADD `author` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `steps` ADD `undo_top` integer;--> statement-breakpoint
ALTER TABLE `steps` ADD `redo_top` integer;--> statement-breakpoint
CREATE UNIQUE INDEX `steps_by_key` ON `steps` (`variant_id`,`key`);--> statement-breakpoint
CREATE INDEX `steps_by_target` ON `steps` (`variant_id`,`target`);--> statement-breakpoint
ALTER TABLE `variants` ADD `summary` text;