/** Why a tree came out as it did: roots, root ports, designated and blocked ports, by code. */
import { grouped } from '../standard';
import type { PriorityVector } from '../standard';

/** Costs of a vector: in the CIST the parts outside and inside the region where both count. */
type Costs = Pick<PriorityVector, 'rootPathCost' | 'internalCost'>;

function costWords({ rootPathCost, internalCost }: Costs): string {
  if (internalCost === undefined || internalCost === 0) return grouped(rootPathCost);
  if (rootPathCost === 0) return `${grouped(internalCost)} inside the region`;
  return `${grouped(rootPathCost)} outside and ${grouped(internalCost)} inside the region`;
}

/** How a root won: against no other, by priority, or by MAC address alone. */
export type RootWords =
  | { readonly name: string }
  | { readonly name: string; readonly next: string; readonly priority: number; readonly nextPriority: number }
  | { readonly name: string; readonly next: string; readonly priority: number; readonly mac: string };

function rootWords(root: RootWords): string {
  if (!('next' in root)) return `${root.name} is root: no other switch is in this part of the tree`;
  if ('nextPriority' in root)
    return `${root.name} is root: its priority ${root.priority} is the lowest, ${root.next} comes next with ${root.nextPriority}`;
  return `${root.name} is root by MAC address only: it has the same priority ${root.priority} as ${root.next}, and its MAC address ${root.mac} is lower`;
}

/** A root port against the second best: the part that decided, ports, senders and costs. */
interface RootPortWords {
  readonly name: string;
  readonly port: string;
  readonly from: string;
  readonly costs: Costs;
  readonly other: { readonly port: string; readonly from: string; readonly costs: Costs };
}

const reached = ({ name, port, from, costs }: Omit<RootPortWords, 'other'>): string =>
  `${name} reaches the root through port ${port}, by ${from}, at ${costWords(costs)}`;
const second = ({ other }: RootPortWords): string => `port ${other.port} by ${other.from}`;

interface TooDeep {
  readonly limit: number;
  readonly age: boolean;
}
const tooOld = (age: boolean): string => (age ? 'are older than the maximum age' : 'have no hop left');

export const ledgerMessages = {
  'no-switch': () => 'No switch that is powered on carries this tree.',
  root: ({ root }: { root: RootWords }) => `${rootWords(root)}.`,
  'regional-roots': ({ count, root }: { count: number; root: RootWords }) =>
    `The instance has its own root in each of ${count} regions. In the largest, ${rootWords(root)}.`,
  'several-roots': ({ count, root }: { count: number; root: RootWords }) =>
    `The tree is partitioned into ${count} parts, each with its own root. In the largest, ${rootWords(root)}.`,
  /** `age`: by the root's maximum age; else by the hops of the region. */
  'too-deep': ({ root, limit, first, age }: TooDeep & { root: string; first: string }) =>
    `${first} and what lies beyond are more than ${limit} bridges from ${root}: its BPDUs ${tooOld(age)} there, and they form a tree of their own.`,
  'too-deep-classic': ({ root, limit, first }: { root: string; limit: number; first: string }) =>
    `${first} and what lies beyond are more than ${limit} bridges from ${root}: its BPDUs expire there before the next hello, and classic spanning tree accepts them and gives them up again without end.`,
  'word-too-old': ({ limit, age, disputed }: TooDeep & { disputed: boolean }) =>
    `Designated: for the far end its BPDUs ${tooOld(age)}, more than ${limit} bridges from the root. ${disputed ? 'The far end forwards all the same, so this end is disputed and blocks.' : 'The far end forwards all the same.'}`,
  'receives-too-old': ({ from, limit, age }: TooDeep & { from: string }) =>
    `Designated: the BPDUs of ${from} ${tooOld(age)} here, more than ${limit} bridges from its root, and count for nothing.`,

  /** `far`: who is there and has nothing to say; absent where no switch is. */
  'silence-guard': ({ far }: { far?: string }) =>
    far === undefined
      ? 'Designated, but held back: its silence guard receives no BPDUs, since no switch is there.'
      : `Designated, but held back: its silence guard receives no BPDUs. ${far} sends none here, since its port is not designated and has no silence guard.`,

  'switch-off': ({ name }: { name: string }) => `${name} is switched off.`,
  'no-vlan-on-switch': ({ name }: { name: string }) =>
    `${name} has no port in this tree: none of its ports carries the VLAN.`,
  'no-instance-on-switch': ({ name, instance }: { name: string; instance: number }) =>
    `${name} does not run this tree: no VLAN is in instance ${instance} there, or it does not run MSTP.`,
  'no-port-on-switch': ({ name }: { name: string }) => `${name} does not run this tree: none of its ports takes part.`,

  'root-port-alone': (v: Omit<RootPortWords, 'other'>) => `${reached(v)}; no other port receives a path to the root.`,
  'root-port-by-cost': (v: RootPortWords) => `${reached(v)}; ${second(v)} would cost ${costWords(v.other.costs)}.`,
  'root-port-by-regional-root': (v: RootPortWords) =>
    `${reached(v)}; ${second(v)} costs the same outside, but through a worse regional root.`,
  'root-port-by-bridge': (v: RootPortWords) =>
    `${reached(v)}; ${second(v)} costs the same, but ${v.from} has the lower bridge identifier.`,
  'root-port-by-far-port': (v: RootPortWords) =>
    `${reached(v)}; ${second(v)} costs the same, but the far end's port identifier is lower on port ${v.port}.`,
  'root-port-by-own-port': (v: RootPortWords) =>
    `${reached(v)}; ${second(v)} receives the same vector, and its own port identifier is higher.`,

  'designated-of-root': () => 'Designated: every port of the root is designated.',
  'designated-by-cost': ({ own, name, far }: { own: Costs; name: string; far: Costs }) =>
    `Designated: this end reaches the root at ${costWords(own)}, ${name} at ${costWords(far)}.`,
  'designated-by-regional-root': ({ cost }: { cost: number }) =>
    `Designated: both ends reach the root at ${grouped(cost)} outside, and this end has the better regional root.`,
  'designated-by-bridge': ({ own }: { own: Costs }) =>
    `Designated: both ends reach the root at ${costWords(own)}, and this end has the lower bridge identifier.`,
  'designated-by-port': () => 'Designated: of this switch’s ports on the same LAN it has the lowest port identifier.',
  'designated-at-hosts': () => 'Designated: no other switch is on this LAN.',
  'designated-without-peer': ({ vlan }: { vlan: number }) =>
    `Designated, without a peer: the far end does not carry VLAN ${vlan}, so its frames are lost on this link.`,
  'designated-alone': () => 'Designated: no other switch offers a path to the root on this LAN.',

  backup: ({ port }: { port: string }) =>
    `Blocked: port ${port} of the same switch is on this LAN too and has the lower port identifier.`,
  'blocked-by-root': ({ far, own }: { far: string; own: Costs }) =>
    `Blocked: ${far} is the root itself, this end at ${costWords(own)}.`,
  'blocked-by-cost': ({ far, costs, own }: { far: string; costs: Costs; own: Costs }) =>
    `Blocked: ${far} reaches the root at ${costWords(costs)}, this end at ${costWords(own)}.`,
  'blocked-by-regional-root': ({ name, cost }: { name: string; cost: number }) =>
    `Blocked: both ends reach the root at ${grouped(cost)} outside, and ${name} has the better regional root.`,
  'blocked-by-bridge': ({ name, own }: { name: string; own: Costs }) =>
    `Blocked: both ends reach the root at ${costWords(own)}, and ${name} has the lower bridge identifier.`,
  'blocked-by-port': () => 'Blocked: another port of the same LAN has the lower port identifier.',

  'follows-vlan': ({ name, vlan, tree }: { name: string; vlan: number; tree: string }) =>
    `${name} has no tree for VLAN ${vlan} alone; its frames follow ${tree} there.`,
  master: () => 'Master: here the CIST leaves the region, and every instance with it.',
  boundary: () => 'Boundary of the region: the instances follow the CIST here.',
  inconsistent: ({ vlans, difference }: { vlans: string; difference: string }) =>
    `Inconsistent in ${vlans}: ${difference}. BPDUs carry the number of their VLAN, so both switches detect it and block until the ends agree.`,
  joined: ({ vlan }: { vlan: number }) =>
    `VLAN ${vlan} is untagged here, between a switch with a tree per VLAN and one with a common tree: the protocol joins the two trees. Tagged BPDUs of the VLAN arrive here as well, which the solver does not cover: rehearse it.`,
  'joined-role': ({ vlan, role }: { vlan: number; role: string }) =>
    `The tree of VLAN ${vlan} and the common tree are one here, since the VLAN is untagged between a switch with a tree per VLAN and one without. The port is ${role} in both.`,
  'joined-root': ({ name, port }: { name: string; port: string }) =>
    `${name} reaches the root through port ${port}, which leads into the tree that this one is joined with.`,
  'joined-tree': ({ name, port }: { name: string; port: string }) =>
    `This tree is joined with another one by an untagged VLAN: its way to the root leads out at port ${port} of ${name}.`,
  'not-in-tree': ({ tree }: { tree: string }) => `Not in this tree: the switch does not run ${tree}.`,
  'vlan-not-carried': ({ port, vlan }: { port: string; vlan: number }) =>
    `Not in this tree: port ${port} does not carry VLAN ${vlan}.`,

  filter: () => 'Designated: its BPDU filter neither sends nor receives BPDUs, so it always forwards.',
  'far-filter': ({ port }: { port: string }) => `Designated: no BPDU arrives, since ${port} has a BPDU filter.`,
  'deaf-port': ({ bundle }: { bundle: string }) =>
    `Designated: it leads to ${bundle}, a static bundle whose BPDUs leave by another member. It receives none, and forwards.`,
  looping: () => 'Frames loop through this port: spanning tree cannot detect it.',
  'root-guard-path': ({ name }: { name: string }) =>
    `Blocked by root guard: ${name} offers a better path to the root, and this port may not become root port.`,
  'root-guard-root': ({ name, root }: { name: string; root: string }) =>
    `Blocked by root guard: ${name} offers a better root, ${root}, and this port may not become root port.`,
  'shut-by-guard': ({ name }: { name: string }) => `Shut down by BPDU guard: ${name} sends BPDUs here.`,
  'far-shut': ({ name }: { name: string }) => `Down: BPDU guard of ${name} has shut down the far end.`,

  'peer-link': () => 'Peer link of a multi-chassis pair: it always forwards, and spanning tree never blocks it.',
  'down-switch-off': () => 'Down: the switch is off.',
  'down-by-setting': () => 'Down: the port is administratively down.',
  'waits-for-bundle': ({ bundle }: { bundle: string }) => `Waits for bundle ${bundle}.`,
  'down-segment': ({ segment }: { segment: string }) => `Down: segment ${segment} has failed.`,
  'down-unplugged': () => 'Down: nothing is plugged in.',
  'down-link': () => 'Down: the link has failed.',
  'down-far-off': ({ name }: { name: string }) => `Down: ${name} at the far end is off.`,
  'down-far-by-setting': () => 'Down: the far end is administratively down.',
  'down-far': () => 'Down: the link has no working far end.',
} as const;
