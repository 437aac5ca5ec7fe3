CREATE TABLE `designs` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`deleted_at` integer
);
--> statement-breakpoint
CREATE TABLE `snapshots` (
	`variant_id` text NOT NULL,
	`revision` integer NOT NULL,
	`document` text NOT NULL,
	PRIMARY KEY(`variant_id`, `revision`),
	FOREIGN KEY (`variant_id`) REFERENCES `variants`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `steps` (
	`variant_id` text NOT NULL,
	`revision` integer NOT NULL,
	`kind` text NOT NULL,
	`target` integer,
	`label` text NOT NULL,
	`edits` text NOT NULL,
	`inverse` text NOT NULL,
	`client` text NOT NULL,
	`made_at` integer NOT NULL,
	PRIMARY KEY(`variant_id`, `revision`),
	FOREIGN KEY (`variant_id`) REFERENCES `variants`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `variants` (
	`id` text PRIMARY KEY NOT NULL,
	`design_id` text NOT NULL,
	`name` text NOT NULL,
	`position` integer NOT NULL,
	`revision` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`design_id`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `variants_by_design` ON `variants` (`design_id`,`position`);