/** Figures of several variants in a worker, one after another; can be stopped. */
import type { Design } from '../core/design';
import { figuresOf } from '../core/plan';
import type { VariantFigures } from '../core/plan';
import { serveJob } from './job';

export interface CompareRequest {
  /** The first is what the others are compared with. */
  readonly designs: readonly Design[];
}
export interface CompareProgress {
  readonly index: number;
  readonly figures: VariantFigures;
}

const pause = () => new Promise((resolve) => setTimeout(resolve, 0));

serveJob<CompareRequest, CompareProgress, boolean>(async ({ designs }, { report, stopped }) => {
  for (const [index, design] of designs.entries()) {
    report({ index, figures: figuresOf(design, index === 0 ? undefined : designs[0]) });
    await pause();
    if (stopped()) return false;
  }
  return true;
});
