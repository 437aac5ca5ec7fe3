/** Taking over what is there and not drawn, or drawn and not there: switches, ports, bundles with their members, maps of instances. */
import { addElement, bundlesOf, portsOf, removeAll, setField, switchById } from '../../design';
import type { Design, Edit, ObservedNetwork, ObservedSwitch, Switch } from '../../design';
import { Macs } from '../../editing';
import type { NewId } from '../../editing';
import { mstConfigOf } from '../../network';
import { PORT_NUMBER, VLAN_ID, vlanMembership } from '../../standard';
import { Numbers } from '../draw/parts';
import { elementCalled, switchCalled } from '../draw/names';
import type { Difference } from './difference';

const observedOf = (design: Design, s: Switch, observed: ObservedNetwork): ObservedSwitch | undefined =>
  observed.switches.find((o) => switchCalled(design, o.name, o.mac)?.id === s.id);

/** The number that was reported where it is free on the switch, else the next one. */
function freeNumber(design: Design, s: Switch, told: number | undefined): number {
  const taken = [...portsOf(design, s.id), ...bundlesOf(design, s.id)].map((e) => e.number);
  const numbers = new Numbers(taken);
  return told !== undefined && told <= PORT_NUMBER.max && !taken.includes(told) ? told : numbers.of(undefined);
}

/** Below the others; its ports and settings are differences of their own once it is there. */
function newSwitch(design: Design, d: Difference, observed: ObservedNetwork, newId: NewId): Edit[] {
  const o = observed.switches.find((s) => s.name === d.device);
  if (!o) return [];
  const mac = o.mac !== null && !design.switches.some((s) => s.mac === o.mac) ? o.mac : new Macs(design).next();
  const placed = design.switches.flatMap((s) => (s.y === undefined ? [] : [s.y]));
  const place = placed.length > 0 ? { x: 0, y: Math.max(...placed) + 160 } : {};
  return [addElement('switch', { id: newId('s'), name: o.name, mac, ...place })];
}

function newPort(design: Design, s: Switch, d: Difference, observed: ObservedNetwork, newId: NewId): Edit[] {
  const o = observedOf(design, s, observed)?.ports.find((p) => p.name === d.observed);
  if (!o) return [];
  const number = freeNumber(design, s, o.number);
  const speed = o.speed || (design.ports[0]?.speed ?? 1000);
  return [addElement('port', { id: newId('p'), switch: s.id, name: o.name, number, speed })];
}

/** Members by their names, those that the design has. */
const memberIds = (design: Design, s: Switch, names: readonly string[]): string[] =>
  names.flatMap((name) => {
    const e = elementCalled(design, s, name);
    return e && !('members' in e) ? [e.id] : [];
  });

function bundleEdits(design: Design, s: Switch, d: Difference, observed: ObservedNetwork, newId: NewId): Edit[] {
  if (d.verdict === 'missing') return removeAll(design, [{ kind: 'bundle', id: d.element! }]);
  const device = observedOf(design, s, observed);
  const b = observed.bundles.find((x) => x.switch === device?.name && `${s.name} ${x.name}` === d.device);
  if (!b) return [];
  const members = memberIds(design, s, b.members);
  if (members.length === 0) return [];
  const number = freeNumber(design, s, b.number);
  return [
    addElement('bundle', { id: newId('b'), switch: s.id, name: b.name, number, members, kind: b.mode ?? 'lacp' }),
  ];
}

/** The map of a switch where it differs from that of its region, VLAN by VLAN. */
function mapEdits(design: Design, s: Switch, observed: ObservedNetwork): Edit[] {
  const map = observedOf(design, s, observed)?.region?.map;
  if (!map) return [];
  const wanted = new Uint16Array(VLAN_ID.max + 1);
  for (const [instance, vlans] of Object.entries(map)) {
    const held = vlans === '' ? null : vlanMembership(vlans);
    for (let v = VLAN_ID.min; v <= VLAN_ID.max; v++) if (held?.[v]) wanted[v] = Number(instance);
  }
  const now = mstConfigOf(design, s).map;
  const own: Record<string, number> = { ...s.vlanInstance };
  for (let v = VLAN_ID.min; v <= VLAN_ID.max; v++) if (now[v] !== wanted[v]) own[v] = wanted[v]!;
  return [setField('switch', s.id, 'vlanInstance', own)];
}

/** Edits behind a difference in what is there; null for one in how it is set. */
export function partEdits(design: Design, d: Difference, observed: ObservedNetwork, newId: NewId): Edit[] | null {
  if (d.kind === 'switch' && d.verdict === 'unexpected') return newSwitch(design, d, observed, newId);
  const s = d.switch === null ? undefined : switchById(design, d.switch);
  if (!s) return null;
  if (d.field === 'configuration digest') return mapEdits(design, s, observed);
  if (d.field === 'port' && d.kind === 'port')
    return d.verdict === 'missing'
      ? removeAll(design, [{ kind: 'port', id: d.element! }])
      : newPort(design, s, d, observed, newId);
  if (d.field === 'bundle') return bundleEdits(design, s, d, observed, newId);
  if (d.field === 'members' && d.element !== null)
    return [setField('bundle', d.element, 'members', memberIds(design, s, (d.observed ?? '').split(', ')))];
  return null;
}
