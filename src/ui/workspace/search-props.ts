import type { Command } from '../session/commands';

export interface SearchProps {
  readonly commands: readonly Command[];
  /** What is typed. */
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onClose: () => void;
}

export const SEARCH_HINT = 'A command, a tree, a switch, a port, a setting, a word…';
