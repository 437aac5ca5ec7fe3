/** A script changes the design as it goes: the designs that the network has, one after the other. */
import { addElement, applyEdits, editSchema } from './edits';
import type { Design } from './schema';
import type { Edit } from './edits';
import type { Script, ScriptEvent } from './script-schema';
import { SECOND } from '../standard';

/** A cable that is plugged in between two ports. */
export const cableEdit = (a: string, b: string): Edit =>
  addElement('link', { id: `${a}--${b}`, a: { port: a }, b: { port: b } });

/** The edits of an event that changes more than light; null for any other. */
export function editsOf(event: ScriptEvent): Edit[] | null {
  if (event.kind === 'cable') return [cableEdit(event.a, event.b)];
  return event.kind === 'set' ? event.edits.flatMap((e) => editSchema.safeParse(e).data ?? []) : null;
}

export interface DesignFrom {
  /** Microseconds from which on it is this one. */
  readonly from: number;
  readonly design: Design;
}

/** Events that cannot be carried out leave the design as it is. */
export function designsOver(design: Design, script: Script): readonly DesignFrom[] {
  const found: DesignFrom[] = [{ from: 0, design }];
  for (const event of [...script.events].sort((x, y) => x.at - y.at)) {
    const edits = editsOf(event);
    const applied = edits && applyEdits(found.at(-1)!.design, edits);
    if (applied?.ok) found.push({ from: Math.round(event.at * SECOND), design: applied.design });
  }
  return found;
}

const together = <T extends { readonly id: string }>(lists: readonly (readonly T[])[]): T[] => {
  const all = new Map<string, T>();
  for (const list of lists) for (const one of list) if (!all.has(one.id)) all.set(one.id, one);
  return [...all.values()];
};

/** Everything that there is at any time of a script, to look names up in; as a design it need not be right. */
export function everNamed(design: Design, script: Script): Design {
  const all = designsOver(design, script).map((d) => d.design);
  if (all.length === 1) return design;
  return {
    ...design,
    switches: together(all.map((d) => d.switches)),
    ports: together(all.map((d) => d.ports)),
    links: together(all.map((d) => d.links)),
    bundles: together(all.map((d) => d.bundles)),
    hosts: together(all.map((d) => d.hosts)),
  };
}
