/** Observations as one network, its drawing, and everything about both that is to be asked. */
import type { Design, ObservedNetwork } from '../design';
import { checkObserved } from './check';
import { drawObserved } from './draw/draw';
import type { Observation } from './model';
import { unite } from './unite/unite';

export interface AsBuilt {
  readonly network: ObservedNetwork;
  readonly design: Design;
}

const RANK = { deviates: 0, contradicts: 1, inferred: 2, incomplete: 3 } as const;

/** The network that is there, as observed and as drawn under a name; its questions with the gravest first. */
export function asBuilt(observations: readonly Observation[], name: string): AsBuilt {
  const network = unite(observations);
  const { design, questions } = drawObserved(network, name);
  const all = [...network.questions, ...questions, ...checkObserved(design, network)];
  const seen = new Set<string>();
  const once = all.filter((q) => !seen.has(q.text) && seen.add(q.text));
  return { network: { ...network, questions: once.sort((a, b) => RANK[a.kind] - RANK[b.kind]) }, design };
}
