/** Something that can be done about a message. */
export interface NoticeAction {
  readonly label: string;
  readonly run: () => void;
}

/** One short message, with a thing or two to do about it. */
export interface NoticeContent {
  readonly text: string;
  readonly alarm?: boolean;
  readonly action?: NoticeAction;
  /** Another way. */
  readonly orElse?: NoticeAction;
}
