/** Steps that turn cables in service into a bundle, by code: what to do, what stops meanwhile, what to verify. */
import { count } from '../standard';

interface Ends {
  readonly near: string;
  readonly far: string;
}
interface Made {
  readonly bundle: string;
  readonly ports: string;
}
/** Whether a new port waits for the forward delay twice before it forwards, in seconds; null where it agrees at once. */
type Opening = number | null;
const openingWords = (wait: Opening): string =>
  wait === null
    ? 'the new port agrees with its neighbour and forwards at once'
    : `the new port waits ${wait} s before it forwards`;
/** What spanning tree blocks while there is no bundle; empty for nothing. */
const blockedWords = (blocked: string): string =>
  blocked === '' ? 'Nothing: spanning tree blocks no port here.' : `Spanning tree blocks ${blocked}.`;

export const stepMessages = {
  nothing: () => 'Nothing.',
  'nothing-more': () => 'Nothing more.',
  'first-stays': () => 'The first cable stays in service.',
  'leave-unplugged': ({ ports }: { ports: string }) => `Leave ports ${ports} unplugged or shut down.`,
  'if-up-already': ({ blocked }: { blocked: string }) => `If they are up already: ${blockedWords(blocked)}`,
  'still-forwards': ({ port, near }: { port: string; near: string }) => `Port ${port} of ${near} forwards as before.`,

  'create-far': ({ lacp, bundle, ports, activity }: Made & { lacp: boolean; activity: string }) =>
    `Create ${lacp ? 'LACP bundle' : 'bundle'} ${bundle} of ports ${ports}, ${activity}. Set its VLANs and cost on the bundle.`,
  'individual-meanwhile': ({ wait }: { wait: Opening }) =>
    `The cable in service, briefly: there is no partner yet, so each port runs as individual; ${openingWords(wait)}.`,
  'suspended-meanwhile': ({ near, far }: Ends) =>
    `All cables until ${near} negotiates: members may not run as individual here. Keep another path to ${far}.`,
  'still-reachable': ({ far }: { far: string }) => `${far} is still reachable; its member is individual.`,
  'continue-at-once': () => 'Continue at once.',
  'create-twin': ({ bundle, ports, shared }: Made & { shared: number }) =>
    `Create bundle ${bundle} of ports ${ports}, with shared number ${shared}.`,
  'pair-consistent': () => 'Both switches of the pair report the bundle as consistent.',
  'create-near': ({ bundle, ports, activity }: Made & { activity: string }) =>
    `Create bundle ${bundle} of ports ${ports}, ${activity}.`,
  'agreeing-meanwhile': ({ wait }: { wait: Opening }) =>
    `The cable in service for about 2 s, until the two ends agree; then ${openingWords(wait)}.`,
  collects: ({ port }: { port: string }) =>
    `Port ${port} collects and distributes at both ends, and each end shows the other as its partner.`,
  'bring-up-singly': ({ ports }: { ports: string }) => `Bring up ports ${ports}, one at a time.`,
  'joining-meanwhile': ({ blocked }: { blocked: string }) =>
    `Nothing: each port joins the bundle, and the trees see one port. Without the bundle: ${blockedWords(blocked)}`,
  'each-active': () => 'Each new member is active at both ends before the next.',

  'shut-down': ({ ports }: { ports: string }) =>
    `Shut down ports ${ports}. Nothing detects a static bundle that only one end has.`,
  'all-cables': ({ near, far }: Ends) => `All cables between ${near} and ${far}: traffic takes another path, or stops.`,
  'reachable-otherwise': ({ far }: { far: string }) =>
    `${far} is reachable over another path. If there is none, use its console.`,
  'create-static-far': ({ bundle, ports }: Made) =>
    `Create static bundle ${bundle} of ports ${ports}. Set its VLANs and cost on the bundle.`,
  'same-cables-down': () => 'The same cables: they are down.',
  'members-down': () => 'The bundle shows its members, all down.',
  'create-static-near': ({ bundle, ports }: Made) => `Create static bundle ${bundle} of ports ${ports}.`,
  'same-cables': () => 'The same cables.',
  'settings-of-far': ({ far }: { far: string }) => `VLANs, speed and cost are those of ${far}.`,
  'bring-up-together': ({ ports }: { ports: string }) => `Bring up ports ${ports} together.`,
  'opening-meanwhile': ({ wait }: { wait: Opening }) =>
    `The bundle, until spanning tree has decided: ${openingWords(wait)}.`,
  'no-flapping': () => 'No MAC address flaps between ports, and the counters of all members grow at both ends.',

  save: () => 'Save the settings at both ends.',
  'both-report': ({ active }: { active: number }) =>
    `Both ends report ${count(active, 'active member')}, and one port in every tree.`,
} as const;
