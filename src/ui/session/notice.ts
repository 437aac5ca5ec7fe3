/** One short message, with at most one thing to do about it. */
export interface NoticeContent {
  readonly text: string;
  readonly alarm?: boolean;
  readonly action?: { readonly label: string; readonly run: () => void };
}
