/** What of ports counts where a drawing is folded: looked up once for each. */
import type { PortStands, Stands } from './stands';

export interface PortMarks {
  readonly role: string;
  readonly blocked: boolean;
  /** It does not carry, is shut or held, or frames loop through it. */
  readonly wrong: boolean;
  /** All that stands there, as a number; and with whether it moved. */
  readonly standing: number;
  readonly word: number;
}

/** Gives the same number for the same word. */
export function numbering(): (word: string) => number {
  const numbers = new Map<string, number>();
  return (word) => {
    let number = numbers.get(word);
    if (number === undefined) numbers.set(word, (number = numbers.size));
    return number;
  };
}

function markOf(stands: PortStands, hasMoved: boolean, numberOf: (word: string) => number): PortMarks {
  const { role, frames, inconsistent, looping, shut } = stands;
  const standing = numberOf([role, frames, inconsistent, looping, shut].join());
  const wrong = frames === 'down' || role === 'disputed' || Boolean(inconsistent || looping || shut);
  return { role, blocked: frames === 'blocked', wrong, standing, word: 2 * standing + (hasMoved ? 1 : 0) };
}

export type MarksOf = (port: number) => PortMarks;

/** `portAt`: the id of a port by its index. */
export function portMarks(stands: Stands, portAt: (port: number) => string, moved?: ReadonlySet<string>): MarksOf {
  const known: (PortMarks | undefined)[] = [];
  const numberOf = numbering();
  return (port) => {
    const found = known[port];
    if (found) return found;
    const id = portAt(port);
    return (known[port] = markOf(stands.port(id), moved?.has(id) === true, numberOf));
  };
}
