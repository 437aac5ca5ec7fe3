/** Proposals in a worker: takes a design, reports how far it is, answers with what was found. */
import { propose } from '../core/goals';
import type { Progress, Proposals } from '../core/goals';
import type { Design } from '../core/design';
import { solveDesign } from '../core/trees';

export type ProposeMessage =
  { readonly kind: 'progress'; readonly progress: Progress } | { readonly kind: 'done'; readonly proposals: Proposals };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<Design>) => void) | null;
  postMessage: (message: ProposeMessage) => void;
};

scope.onmessage = ({ data }) => {
  const proposals = propose(solveDesign(data), (progress) => scope.postMessage({ kind: 'progress', progress }));
  scope.postMessage({ kind: 'done', proposals });
};
