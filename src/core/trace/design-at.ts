/** The design as the events of a run have left it by a moment: what the converged solver can be asked about. */
import { applyEdits, editsOf, linkById, setField, switchById } from '../design';
import type { Design, Edit, Script, ScriptEvent } from '../design';
import type { Happening, Trace } from './recorder';

export interface AsItStands {
  readonly design: Design;
  /** What goes on that a design cannot say: light at one end, lost BPDUs, what was plugged in, spanning tree off. */
  readonly extras: readonly ScriptEvent[];
}

type Carried = Extract<Happening, { kind: 'script' }>;

/** Events that were carried out by a moment, of a flapping link each turn; `at` in microseconds. */
export function carriedOut(trace: Trace, at: number): readonly Carried[] {
  const found: Carried[] = [];
  for (const h of trace.happenings) {
    if (h.at > at) break;
    if (h.kind === 'script') found.push(h);
    // An event without effect is recorded right after it was due.
    else if (h.kind === 'void' && found.at(-1)?.event === h.event && found.at(-1)!.at === h.at) found.pop();
  }
  return found;
}

/** Links that are dark and switches that are off, until they are written into the design. */
class Pending {
  private readonly down = new Map<string, boolean>();
  private readonly off = new Map<string, boolean>();
  constructor(private design: Design) {}

  link = (id: string, down: boolean) => void this.down.set(id, down);
  switch = (id: string, off: boolean) => void this.off.set(id, off);

  /** The design with all of it, and with edits after that where they fit. */
  written(edits: readonly Edit[] = []): Design {
    const light = [...this.down].filter(([id]) => linkById(this.design, id));
    const power = [...this.off].filter(([id]) => switchById(this.design, id));
    this.down.clear();
    this.off.clear();
    this.apply([
      ...light.map(([id, down]) => setField('link', id, 'down', down || null)),
      ...power.map(([id, off]) => setField('switch', id, 'off', off || null)),
    ]);
    this.apply(edits);
    return this.design;
  }

  private apply(edits: readonly Edit[]): void {
    if (edits.length === 0) return;
    const applied = applyEdits(this.design, edits);
    if (applied.ok) this.design = applied.design;
  }
}

/** `at` in microseconds. Nothing is said of how far the network has come with it: that is what the trace tells. */
export function asItStands(design: Design, script: Script, trace: Trace, at: number): AsItStands {
  const pending = new Pending(design);
  const extras = new Map<string, ScriptEvent>();
  for (const { event: index, step, switch: taken } of carriedOut(trace, at)) {
    const event = script.events[index];
    switch (event?.kind) {
      case undefined:
      // It leaves the network as it is.
      case 'migration-check':
        break;
      case 'link-down':
      case 'link-up':
      case 'flap':
        if (event.kind === 'link-down' && event.end) {
          extras.set(`light ${event.link}`, event);
          break;
        }
        extras.delete(`light ${event.link}`);
        pending.link(event.link, event.kind === 'flap' ? step % 2 === 0 : event.kind === 'link-down');
        break;
      case 'switch-off':
      case 'switch-on':
        pending.switch(event.switch, event.kind === 'switch-off');
        break;
      case 'root-off':
        if (taken !== undefined) pending.switch(taken, true);
        break;
      case 'set':
      case 'cable':
        pending.written(editsOf(event)!);
        break;
      case 'hub-loop':
      case 'intruder':
        extras.set(`${event.kind} ${event.port}`, event);
        break;
      case 'unplug':
        extras.delete(`hub-loop ${event.port}`);
        extras.delete(`intruder ${event.port}`);
        break;
      case 'bpdu-loss':
        extras.set(`mute ${event.link}`, event);
        break;
      case 'bpdu-heal':
        extras.delete(`mute ${event.link}`);
        break;
      case 'tree-off':
        extras.set(`tree ${event.switch}`, event);
        break;
    }
  }
  return { design: pending.written(), extras: [...extras.values()] };
}
