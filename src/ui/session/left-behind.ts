/** Which entries of the browser's storage are of windows that are gone; looked for again and again, since windows close at any time. */
import type { Found } from './kept';

/** Looks in which this tab may still find that the page before it has gone: its locks go some time after it. */
const OWN_LOOKS = 3;

export interface World {
  /** All entries of the variant. */
  readonly find: () => readonly Found[];
  readonly isOpen: (window: string) => Promise<boolean>;
  /** The entry without what the server has; null when nothing is left of it. */
  readonly unsaved: (found: Found) => Promise<Found | null>;
  readonly thisWindow: string;
  /** The page that this tab showed before this one. */
  readonly before: string | null;
  /** Takes up what the page before left. */
  readonly adopt: (found: Found) => void;
}

/** Remembers between looks what was offered, and what was answered. */
export class LeftBehind {
  private looks = 0;
  private offered = new Map<string, Found>();
  private closed = new Set<string>();
  private readonly answered = new Set<string>();

  constructor(private readonly world: World) {}

  /** Not offered any more by this page. */
  answer(found: Found): void {
    this.answered.add(found.storageKey);
    this.offered.delete(found.storageKey);
  }

  get left(): readonly Found[] {
    return [...this.offered.values()];
  }

  /**
   * Looks once. What is found closed when the page opens is offered at once; later a window has to be found closed
   * twice, since one that is loaded again takes up what it left by itself.
   */
  async look(): Promise<readonly Found[]> {
    const first = this.looks++ === 0;
    const known = this.closed;
    this.closed = new Set();
    const found = this.world.find().filter((f) => f.window !== this.world.thisWindow);
    for (const key of this.offered.keys()) if (!found.some((f) => f.storageKey === key)) this.offered.delete(key);
    for (const entry of found) {
      if (this.answered.has(entry.storageKey) || this.offered.has(entry.storageKey)) continue;
      if (await this.world.isOpen(entry.window)) continue;
      this.closed.add(entry.storageKey);
      if (this.isOwn(entry)) this.takeOwn(entry);
      else if (first || known.has(entry.storageKey)) await this.offer(entry);
    }
    return this.left;
  }

  private isOwn(entry: Found): boolean {
    return entry.window === this.world.before && this.looks <= OWN_LOOKS;
  }

  private takeOwn(entry: Found): void {
    this.answered.add(entry.storageKey);
    this.world.adopt(entry);
  }

  private async offer(entry: Found): Promise<void> {
    const unsaved = await this.world.unsaved(entry);
    if (unsaved && !this.answered.has(entry.storageKey)) this.offered.set(entry.storageKey, unsaved);
  }
}
