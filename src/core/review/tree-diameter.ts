/** How many links the longest way in a tree has. */
import type { SolvedTree } from '../trees';

let space = room(0);
function room(bridges: number) {
  const numbers = () => new Int32Array(bridges);
  return { bridges, up: numbers(), left: numbers(), order: numbers(), deepest: numbers(), diameter: numbers() };
}

/** The same memory for every tree, cleared. */
function spaceFor(bridges: number) {
  if (space.bridges !== bridges) return (space = room(bridges));
  for (const numbers of [space.left, space.deepest, space.diameter]) numbers.fill(0);
  return space;
}

/**
 * Links between the two switches that are farthest apart: the two deepest branches of a switch, where that is most. Written out
 * with plain arrays: it runs for every tree of every failure.
 */
export function treeDiameter({ topology, outcome }: SolvedTree): number {
  const { portLan, portBridge, bridgeMac } = topology;
  const { rootPort, designatedPort } = outcome;
  const bridges = bridgeMac.length;
  const { up, left, order, deepest, diameter } = spaceFor(bridges);
  for (let b = 0; b < bridges; b++) {
    const port = rootPort[b]!;
    const designated = port < 0 ? -1 : designatedPort[portLan[port]!]!;
    up[b] = designated < 0 ? -1 : portBridge[designated]!;
    if (up[b]! >= 0) left[up[b]!]!++;
  }
  let count = 0;
  for (let b = 0; b < bridges; b++) if (left[b] === 0) order[count++] = b;
  let best = 0;
  for (let i = 0; i < count; i++) {
    const b = order[i]!;
    if (diameter[b]! > best) best = diameter[b]!;
    const above = up[b]!;
    if (above < 0) continue;
    const through = deepest[b]! + 1;
    if (deepest[above]! + through > diameter[above]!) diameter[above] = deepest[above]! + through;
    if (through > deepest[above]!) deepest[above] = through;
    if (--left[above]! === 0) order[count++] = above;
  }
  return best;
}
