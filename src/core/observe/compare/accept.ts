/** Taking what was observed into the design: the edits behind a difference. Roles and roots follow from settings, and have none of their own. */
import { acceptFinding } from '../../editing';
import type { NewId } from '../../editing';
import {
  addElement,
  applyEdits,
  bundleById,
  modeOf,
  portById,
  scopeAt,
  setBridgePriority,
  setField,
  setPortCost,
  setPortPriority,
  switchById,
} from '../../design';
import type { Bundle, Design, Edit, ObservedEnd, ObservedNetwork, Port, Scope, Switch } from '../../design';
import { parseTreeId } from '../../standard';
import { solveDesign } from '../../trees';
import { switchCalled } from '../draw/names';
import { partEdits } from './accept-parts';
import { compareCables } from './cables';
import { compareWithDesign } from './compare';
import type { Difference } from './difference';

/** Fields that take the observed value as it is: those of a switch, and those of a port or bundle. */
const SWITCH_FIELDS: Readonly<Record<string, string>> = {
  'MAC address': 'mac',
  mode: 'protocol',
  'hello time': 'helloTime',
  'maximum age': 'maxAge',
  'forward delay': 'forwardDelay',
  'ageing time': 'ageingTime',
  'hold count': 'holdCount',
  'region name': 'mstName',
  revision: 'mstRevision',
};
const ELEMENT_FIELDS: Readonly<Record<string, string>> = {
  number: 'number',
  duplex: 'duplex',
  'LACP port priority': 'lacpPriority',
  VLANs: 'vlans',
  'untagged VLAN': 'native',
  'edge port': 'edge',
  negotiation: 'kind',
  activity: 'activity',
  timeout: 'timeout',
  'LACP system': 'systemMac',
  'LACP system priority': 'systemPriority',
};
const TEXT = new Set(['mac', 'protocol', 'mstName', 'duplex', 'vlans', 'kind', 'activity', 'timeout', 'systemMac']);

/** An observed value as the document holds it. */
function valueOf(field: string, observed: string): unknown {
  if (field === 'native') return observed === 'none' ? null : Number(observed);
  if (field === 'edge') return observed === 'true' ? true : null;
  return TEXT.has(field) ? observed : Number(observed);
}

/** What a setting of an observed tree holds for; where one tree carries all VLANs, for all that the design has. */
function scopeOf(design: Design, s: Switch, tree: string): Scope {
  const parts = parseTreeId(tree);
  const vlan = parts?.kind === 'vlan' ? parts.vlan : null;
  const instance = parts?.kind === 'instance' ? parts.instance : parts?.kind === 'common' ? 0 : null;
  return vlan === null && instance === null ? 'all' : scopeAt(design, s, { vlan, instance });
}

function switchEdits(design: Design, s: Switch, d: Difference, observed: ObservedNetwork): Edit[] {
  const match = /^priority(?: in (\S+))?$/.exec(d.field);
  if (match) {
    const own = observed.switches.find((o) => switchCalled(design, o.name, o.mac)?.id === s.id);
    const tree = match[1] ?? Object.keys(own?.priorities ?? {})[0] ?? 'rstp';
    return setBridgePriority(s, scopeOf(design, s, tree), Number(d.observed));
  }
  const field = SWITCH_FIELDS[d.field];
  return field === undefined ? [] : [setField('switch', s.id, field as 'id', valueOf(field, d.observed!))];
}

function elementEdits(design: Design, e: Port | Bundle, d: Difference): Edit[] {
  const kind = 'members' in e ? 'bundle' : 'port';
  const match = /^(cost|port priority) in (\S+)$/.exec(d.field);
  if (match) {
    const s = switchById(design, e.switch)!;
    // What agents report of the CIST is the cost outside of the region (802.1Q 13.27), which is that of the port.
    if (match[1] === 'cost' && modeOf(design, s) === 'mstp' && parseTreeId(match[2]!)?.kind === 'common')
      return [setField(kind, e.id, 'cost', Number(d.observed))];
    const scope = scopeOf(design, s, match[2]!);
    return (match[1] === 'cost' ? setPortCost : setPortPriority)(kind, e, scope, Number(d.observed));
  }
  if (d.field === 'enabled') return [setField('port', e.id, 'down', d.observed === 'false' ? true : null)];
  const field = ELEMENT_FIELDS[d.field];
  return field === undefined ? [] : [setField(kind, e.id, field as 'id', valueOf(field, d.observed!))];
}

const endOf = ({ switch: name, port }: ObservedEnd) => ({ name, port });

/** A cable as it is plugged in: drawn, moved, or taken out. */
function linkEdits(design: Design, d: Difference, observed: ObservedNetwork, newId: NewId): Edit[] {
  const link = observed.links.find(({ a, b }) => `${a.switch} ${a.port} – ${b.switch} ${b.port}` === d.observed);
  const nowhere = { name: '', port: '' };
  const verdict = d.verdict === 'missing' ? 'missing' : d.verdict === 'differs' ? 'other port' : 'unexpected';
  if (!link && verdict !== 'missing') return [];
  const [a, b] = link ? [endOf(link.a), endOf(link.b)] : [nowhere, nowhere];
  return acceptFinding(design, { key: d.device, verdict, a, b, link: d.element, sentence: '' }, [], newId);
}

/** Edits that make the design as it was observed in one thing; none where that follows from something else. */
export function acceptDifference(design: Design, d: Difference, observed: ObservedNetwork, newId: NewId): Edit[] {
  if (d.kind === 'link') return linkEdits(design, d, observed, newId);
  if (d.kind === 'vlan') {
    const number = Number(/\d+/.exec(d.field)![0]);
    const name = observed.switches.flatMap((s) => s.vlans).find((v) => v.number === number)?.name;
    return [addElement('vlan', { id: newId('v'), number, ...(name ? { name } : {}) })];
  }
  const part = partEdits(design, d, observed, newId);
  if (part) return part;
  if (d.verdict !== 'differs' || d.observed === null || d.element === null) return [];
  const s = d.kind === 'switch' ? switchById(design, d.element) : undefined;
  if (s) return switchEdits(design, s, d, observed);
  const e = portById(design, d.element) ?? bundleById(design, d.element);
  return e ? elementEdits(design, e, d) : [];
}

export interface Accepted {
  readonly design: Design;
  readonly edits: readonly Edit[];
}

/**
 * A design with differences taken over, and the edits that lead there. One after another, since a link that is
 * re-plugged settles others; what the design does not take is passed over.
 */
export function acceptDifferences(
  design: Design,
  observed: ObservedNetwork,
  list: readonly Difference[],
  newId: NewId,
): Accepted {
  const edits: Edit[] = [];
  let now = design;
  // Links last: settings find their ports before one is moved.
  for (const wanted of [...list.filter((d) => d.kind !== 'link'), ...list.filter((d) => d.kind === 'link')]) {
    const same =
      wanted.kind === 'link'
        ? compareCables(solveDesign(now), observed).find((d) => d.device === wanted.device)
        : wanted;
    const own = same ? acceptDifference(now, same, observed, newId) : [];
    const applied = own.length > 0 ? applyEdits(now, own) : null;
    if (!applied?.ok) continue;
    now = applied.design;
    edits.push(...own);
  }
  return { design: now, edits };
}

/** Rounds of taking over: a mode that changes, or a link, brings costs and numbers that could not be seen, or not be set, before. */
const ROUNDS = 4;

/** The design as the network is: with everything taken over in which the two differ and that a design can hold. */
export function asObserved(design: Design, observed: ObservedNetwork, newId: NewId): Design {
  let now = design;
  for (let round = 0; round < ROUNDS; round++) {
    const { design: next, edits } = acceptDifferences(now, observed, compareWithDesign(now, observed), newId);
    now = next;
    if (edits.length === 0) break;
  }
  return now;
}
