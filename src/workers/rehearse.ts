/** A rehearsal in a worker: takes a design and a script, reports how far it is, answers with what happened. */
import type { Design, Script } from '../core/design';
import { rehearse } from '../core/rehearsal';
import type { Trace } from '../core/rehearsal';

export interface RehearseRequest {
  readonly design: Design;
  readonly script: Script;
}
export type RehearseMessage =
  { readonly kind: 'progress'; readonly seconds: number } | { readonly kind: 'done'; readonly trace: Trace };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<RehearseRequest>) => void) | null;
  postMessage: (message: RehearseMessage) => void;
};

scope.onmessage = ({ data }) => {
  const trace = rehearse(data.design, data.script, {
    progress: (seconds) => {
      scope.postMessage({ kind: 'progress', seconds });
      return true;
    },
  });
  scope.postMessage({ kind: 'done', trace });
};
