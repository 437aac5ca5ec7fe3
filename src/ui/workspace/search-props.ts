import type { Command } from '../session/commands';

export interface SearchProps {
  readonly commands: readonly Command[];
  /** What is typed. */
  readonly text: string;
  readonly onText: (text: string) => void;
  /** Enter was pressed before there was a list: what stands first in it is meant. */
  readonly entered: boolean;
  readonly onEnter: () => void;
  readonly onClose: () => void;
}

export const SEARCH_HINT = 'A command, a tree, a switch, a port, a setting, a word…';
