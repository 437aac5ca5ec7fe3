/** Names of links on the boards. */
import type { SolvedDesign } from '../../../core/trees';
import { endWords } from '../../../core/goals';

/** `quay-a 3 – gate 1` */
export function linkWords(solved: SolvedDesign, { a, b }: { a: number; b: number }): string {
  const { design, ports, portBridge } = solved.topology;
  // The names of the two ends of a bundle mostly repeat each other.
  if (ports[a]!.kind === 'bundle' && ports[b]!.kind === 'bundle')
    return `${design.switches[portBridge[a]!]!.name} = ${design.switches[portBridge[b]!]!.name}`;
  return `${endWords(solved, a)} – ${endWords(solved, b)}`;
}
