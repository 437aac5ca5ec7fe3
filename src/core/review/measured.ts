/** How long pairs of hosts are without contact when something fails, as a rehearsal has it. */
import { isClassicMode, modeOf } from '../design';
import type { Design, Script, ScriptEvent } from '../design';
import { rehearse } from '../simulation';
import { SECOND } from '../standard';
import { gapsOf } from '../trace';
import type { Element } from './elements';

/** Seconds before the failure, and after it for a network of each kind to come to rest. */
const BEFORE = 1;
const REST = { rapid: 25, classic: 75 } as const;

type Untimed = ScriptEvent extends infer E ? (E extends ScriptEvent ? Omit<E, 'id' | 'at'> : never) : never;

const eventsOf = ({ links, segments, switches }: Element): Untimed[] => [
  ...links.map((link): Untimed => ({ kind: 'link-down', link })),
  ...switches.map((at): Untimed => ({ kind: 'switch-off', switch: at })),
  ...segments.map((id): Untimed => ({
    kind: 'set',
    edits: [{ type: 'set', kind: 'segment', id, field: 'down', value: true }],
    label: 'segment down',
  })),
];

/** The script of a failure: everything at one moment. */
export function failureScript(design: Design, elements: readonly Element[], name: string): Script {
  const classic = design.switches.some((s) => isClassicMode(modeOf(design, s)));
  return {
    id: 'failure',
    name,
    until: BEFORE + (classic ? REST.classic : REST.rapid),
    events: elements.flatMap(eventsOf).map((event, i) => ({ ...event, id: `e${i + 1}`, at: BEFORE })),
  };
}

/** Seconds of the longest gap of a pair that has contact again afterwards; null where no pair of hosts is there to ask. */
export function measuredOutage(design: Design, elements: readonly Element[]): number | null {
  const { contacts } = rehearse(design, failureScript(design, elements, 'failure'));
  if (contacts.length === 0) return null;
  const gaps = contacts
    .flatMap(gapsOf)
    .flatMap(({ from, to }) => (to !== null && from >= BEFORE * SECOND ? [to - from] : []));
  return Math.max(0, ...gaps) / SECOND;
}
