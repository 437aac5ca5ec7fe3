/** A server of one variant in memory, with the rules of the real one: revisions, keys, targets of undo. */
import { NO_HISTORY, advance, applyEdits } from '@/core/design';
import type { Design, Edit, History } from '@/core/design';
import type { Sender } from '@/ui/session/api';
import { Refusal } from '@/ui/session/types';
import type { LoadedVariant, Step } from '@/ui/session/types';

type Stored = Step & { inverse: readonly Edit[] };

export class SessionServer {
  readonly steps: Stored[] = [];
  readonly designs: Design[];
  history: History = NO_HISTORY;
  epoch = 'first';
  /** Sentence with which the next edit is refused. */
  refusal: string | null = null;

  constructor(design: Design) {
    this.designs = [design];
  }

  get design(): Design {
    return this.designs.at(-1)!;
  }

  variant = (): LoadedVariant => ({
    id: 'v',
    designId: 'd',
    name: 'n',
    revision: this.steps.length,
    epoch: this.epoch,
    design: this.design,
    history: this.history,
  });

  private make(change: Pick<Step, 'kind' | 'target' | 'label' | 'edits' | 'client' | 'key'>): Step {
    const applied = applyEdits(this.design, change.edits);
    if (!applied.ok) throw new Refusal(422, applied.faults[0]!.code, applied.faults[0]!.sentence, [], []);
    const step = { revision: this.steps.length + 1, ...change, inverse: applied.inverse };
    this.steps.push(step);
    this.designs.push(applied.design);
    this.history = advance(this.history, step);
    return step;
  }

  /** The stored step of a key; null when the request is a new one that may be carried out. */
  private known(revision: number, sender: Sender): Step | null {
    if (sender.epoch !== this.epoch) throw new Refusal(409, 'restored', 'restored', [], []);
    const known = this.steps.find((s) => s.key === sender.key);
    if (known) return known;
    if (revision !== this.steps.length) throw new Refusal(409, 'conflict', 'changed', [], this.steps.slice(revision));
    return null;
  }

  readonly api = {
    step: async (_: string, revision: number, label: string, edits: readonly Edit[], sender: Sender): Promise<Step> => {
      const known = this.known(revision, sender);
      if (known) return known;
      const { refusal } = this;
      this.refusal = null;
      if (refusal !== null) throw new Refusal(422, 'refused', refusal, [], []);
      return this.make({ kind: 'edit', target: null, label, edits, client: sender.client, key: sender.key });
    },
    move: async (
      kind: 'undo' | 'redo',
      _: string,
      revision: number,
      target: string | number,
      sender: Sender,
    ): Promise<Step> => {
      const known = this.known(revision, sender);
      if (known) return known;
      const top = this.history[kind].at(-1);
      if (!top || (top.revision !== target && top.key !== target))
        throw new Refusal(409, 'not-last', 'another step is the last', [], []);
      const of = this.steps[top.revision - 1]!;
      const edits = kind === 'undo' ? of.inverse : of.edits;
      return this.make({ kind, target: of.revision, label: of.label, edits, client: sender.client, key: sender.key });
    },
    steps: async (_: string, since: number): Promise<Step[]> => this.steps.slice(since),
    stack: async () => ({ entries: [], below: null }),
  };

  /** A change by another window. */
  elsewhere(label: string, edits: readonly Edit[]): Step {
    return this.make({ kind: 'edit', target: null, label, edits, client: 'other', key: null });
  }
}
