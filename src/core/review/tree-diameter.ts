/** How many links the longest way in a tree has. */
import type { SolvedTree } from '../trees';

let space = room(0);
function room(bridges: number) {
  const numbers = () => new Int32Array(bridges);
  const ends = { far: numbers(), one: numbers(), other: numbers() };
  return {
    bridges,
    up: numbers(),
    left: numbers(),
    order: numbers(),
    deepest: numbers(),
    diameter: numbers(),
    ...ends,
  };
}

/** The same memory for every tree, cleared. */
function spaceFor(bridges: number) {
  if (space.bridges !== bridges) return (space = room(bridges));
  for (const numbers of [space.left, space.deepest, space.diameter]) numbers.fill(0);
  return space;
}

/** The longest way in a tree: its links, and the two switches at its ends; the same switch twice where there is none. */
export interface Diameter {
  readonly links: number;
  readonly ends: readonly [number, number];
}

/**
 * Links between the two switches that are farthest apart: the two deepest branches of a switch, where that is most. Written out
 * with plain arrays: it runs for every tree of every failure.
 */
export function treeDiameter({ topology, outcome }: SolvedTree): Diameter {
  const { portLan, portBridge, bridgeMac } = topology;
  const { rootPort, designatedPort } = outcome;
  const bridges = bridgeMac.length;
  const { up, left, order, deepest, diameter, far, one, other } = spaceFor(bridges);
  for (let b = 0; b < bridges; b++) {
    const port = rootPort[b]!;
    const designated = port < 0 ? -1 : designatedPort[portLan[port]!]!;
    up[b] = designated < 0 ? -1 : portBridge[designated]!;
    if (up[b]! >= 0) left[up[b]!]!++;
    far[b] = one[b] = other[b] = b;
  }
  let count = 0;
  for (let b = 0; b < bridges; b++) if (left[b] === 0) order[count++] = b;
  let best = -1;
  for (let i = 0; i < count; i++) {
    const b = order[i]!;
    if (best < 0 || diameter[b]! > diameter[best]!) best = b;
    const above = up[b]!;
    if (above < 0) continue;
    const through = deepest[b]! + 1;
    if (deepest[above]! + through > diameter[above]!) {
      diameter[above] = deepest[above]! + through;
      one[above] = far[above]!;
      other[above] = far[b]!;
    }
    if (through > deepest[above]!) {
      deepest[above] = through;
      far[above] = far[b]!;
    }
    if (--left[above]! === 0) order[count++] = above;
  }
  return best < 0 ? { links: 0, ends: [-1, -1] } : { links: diameter[best]!, ends: [one[best]!, other[best]!] };
}
