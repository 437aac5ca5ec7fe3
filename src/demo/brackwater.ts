/**
 * Brackwater Ferries, a made-up ferry port. `asCabled` has faults to find: VLAN 199 has no root placed, so the oldest
 * access switch wins it; a forgotten port cost keeps an uplink of the signal tower idle; the bundle to the cold store
 * has a lone cable; the two ends of an uplink of the gate disagree on their VLANs. `asMeant` has them put right.
 */
import type { Bundle, Demand, Design, Goal, Note, Script } from '../core/design';
import { DesignDraft } from './build';

const ALL = '110,120,130,140,150,160,199';
const EAST = [110, 120, 130];
const WEST = [140, 150, 160];

/** What the engineers of the port want; as cabled, two of them are broken. */
const GOALS: Goal[] = [
  { id: 'roots-east', type: 'root', vlans: '110,120,130', switch: 'core-east', next: 'core-west' },
  { id: 'roots-west', type: 'root', vlans: '140,150,160', switch: 'core-west', next: 'core-east' },
  { id: 'no-access-root', type: 'never-root', vlans: 'all', tier: 'access' },
  { id: 'cameras', type: 'path', vlans: '130', from: { host: 'gate-camera' }, to: { host: 'recorder' }, atMost: 3 },
  { id: 'tower-uplink', type: 'carries', vlans: '140', port: 'signal-tower:1' },
  { id: 'load', type: 'load', vlans: 'all', percent: 70 },
];

/** What the port wants to see before the season: a cable lost, a core switch lost, and rogue switch at the ticket hall. */
const SCRIPTS: Script[] = [
  {
    id: 'uplink',
    name: 'ticket hall loses its uplink',
    until: 90,
    events: [
      { id: 'down', at: 5, kind: 'link-down', link: 'quay-a:3--ticket-hall:1' },
      { id: 'up', at: 45, kind: 'link-up', link: 'quay-a:3--ticket-hall:1' },
    ],
    probes: [
      { from: 'ferry-server', to: 'ticket-desk', vlan: 110 },
      { from: 'recorder', to: 'gate-camera', vlan: 130 },
    ],
  },
  {
    id: 'core',
    name: 'a core switch fails',
    until: 60,
    events: [{ id: 'off', at: 5, kind: 'root-off', vlan: 140 }],
  },
  {
    id: 'stranger',
    name: 'rogue switch at the ticket hall',
    until: 90,
    events: [
      { id: 'in', at: 5, kind: 'intruder', port: 'ticket-hall:10', priority: 0 },
      { id: 'out', at: 50, kind: 'unplug', port: 'ticket-hall:10' },
    ],
  },
];

const DEMANDS: Demand[] = [
  { id: 'tickets', vlan: 110, from: { host: 'ferry-server' }, to: { host: 'ticket-desk' }, load: 180 },
  { id: 'gate-stream', vlan: 130, from: { host: 'gate-camera' }, to: { host: 'recorder' }, load: 60 },
  { id: 'tower-stream', vlan: 130, from: { switch: 'signal-tower' }, to: { host: 'recorder' }, load: 340 },
  { id: 'crane', vlan: 140, from: { host: 'crane-plc' }, to: { switch: 'core-west' }, load: 12 },
  { id: 'guests', vlan: 150, from: { switch: 'core-west' }, to: { switch: 'ticket-hall' }, load: 420 },
  { id: 'freezers', vlan: 160, from: { host: 'freezer-monitor' }, to: { switch: 'core-west' }, load: 8 },
];

const NOTES: Note[] = [
  {
    id: 'operations-house',
    text: 'Operations house, first floor',
    form: 'box',
    layer: 'buildings',
    about: ['core-east', 'core-west'],
  },
  {
    id: 'quay-road',
    text: '180 m, duct under the quay road',
    form: 'distance',
    layer: 'ducts',
    about: ['quay-a', 'quay-b'],
  },
  { id: 'workshop-key', text: 'Key with the port office', layer: 'access', about: ['workshop'] },
];

const mac = (last: string) => `00:00:5e:00:53:${last}`;
const table = (vlans: readonly number[], value: number) => Object.fromEntries(vlans.map((v) => [String(v), value]));

function switches(name: string, meant: boolean): DesignDraft {
  const west = meant ? [...WEST, 199] : WEST;
  const access = meant ? { priority: 61440 } : {};
  return new DesignDraft(name)
    .vlan(110, 'ticketing', 0)
    .vlan(120, 'crew', 1)
    .vlan(130, 'cameras', 2)
    .vlan(140, 'crane telemetry', 3)
    .vlan(150, 'guests', 4)
    .vlan(160, 'buildings', 5)
    .vlan(199, 'management', 6)
    .switch('core-east', mac('21'), 'core', 380, 60, { vlanPriority: { ...table(EAST, 4096), ...table(west, 8192) } })
    .switch('core-west', mac('22'), 'core', 760, 60, { vlanPriority: { ...table(west, 4096), ...table(EAST, 8192) } })
    .switch('quay-a', mac('1a'), 'distribution', 300, 220, meant ? { vlanPriority: table(EAST, 16384) } : {})
    .switch('quay-b', mac('1b'), 'distribution', 840, 220, { vlanPriority: table(west, 16384) })
    .switch('ticket-hall', mac('31'), 'access', 80, 420, access)
    .switch('gate', mac('32'), 'access', 270, 420, access)
    .switch('crane-yard', mac('33'), 'access', 460, 420, access)
    .switch('signal-tower', mac('34'), 'access', 680, 420, access)
    .switch('cold-store', mac('35'), 'access', 960, 420, access)
    .switch('workshop', mac('05'), 'access', 570, 560, access);
}

/** Cables, bundles and hosts between the switches. */
const cable = (draft: DesignDraft, meant: boolean): DesignDraft =>
  draft
    .link(['core-east', 1], ['core-west', 1], 10000, ALL)
    .link(['core-east', 2], ['core-west', 2], 10000, ALL)
    .link(['core-east', 3], ['quay-a', 1], 10000, ALL)
    .link(['core-east', 4], ['quay-b', 2], 10000, ALL)
    .link(['core-west', 3], ['quay-b', 1], 10000, ALL)
    .link(['core-west', 4], ['quay-a', 2], 10000, ALL)
    .link(['quay-a', 12], ['quay-b', 12], 1000, ALL)
    .link(['quay-a', 3], ['ticket-hall', 1], 1000, ALL)
    .link(['quay-b', 3], ['ticket-hall', 2], 1000, ALL)
    .link(['quay-a', 4], ['gate', 1], 1000, ALL)
    .link(['quay-b', 4], ['gate', 2], 1000, ALL, meant ? ALL : '110,120,140,150,160,199')
    .link(['quay-a', 5], ['crane-yard', 1], 1000, ALL)
    .link(['quay-b', 7], ['crane-yard', 2], 1000, ALL)
    .link(['quay-b', 5], ['signal-tower', 1], 1000, ALL)
    .link(['quay-a', 6], ['signal-tower', 2], 1000, ALL)
    .link(['quay-b', 8], ['cold-store', 1], 1000, ALL)
    .link(['signal-tower', 3], ['workshop', 1], 1000, '110,120,130,160,199')
    .link(['crane-yard', 3], ['workshop', 2], 1000, '110,120,130,160,199')
    .bundle({ at: 'core-east', number: 101, members: [1, 2] }, { at: 'core-west', number: 101, members: [1, 2] }, ALL)
    .host('ferry-server', ['core-east', 20], 10000, 110, { x: 120, y: 60 })
    .host('recorder', ['core-west', 20], 10000, 130, { x: 1000, y: 60 })
    .host('ticket-desk', ['ticket-hall', 10], 1000, 110, { x: 80, y: 540 })
    .host('gate-camera', ['gate', 10], 100, 130, { x: 270, y: 540 })
    .host('crane-plc', ['crane-yard', 10], 100, 140, { x: 400, y: 560 })
    .host('freezer-monitor', ['cold-store', 10], 100, 160, { x: 960, y: 540 });

function cabled(name: string, meant: boolean): Design {
  const draft = cable(switches(name, meant), meant);
  // A cost that stayed from the days of a 100 Mb/s cable keeps this uplink idle.
  if (!meant) draft.port(['signal-tower', 1], 1000, { cost: 200000 });
  if (meant) draft.link(['quay-b', 9], ['cold-store', 2], 1000, ALL);
  else {
    draft.port(['quay-b', 9], 1000, { vlans: ALL });
    draft.port(['cold-store', 2], 1000, { vlans: ALL });
  }
  draft.design.goals = GOALS;
  draft.design.demands = DEMANDS;
  draft.design.scripts = SCRIPTS;
  draft.design.notes = NOTES;
  // As meant, no port for an end device lets a stranger into the trees.
  if (meant) {
    for (const port of draft.design.ports) if (port.edge) port.bpduGuard = true;
    for (const s of draft.design.switches) if (s.tier === 'access') s.guardRecovery = 30;
  }
  return draft.bundle(
    { at: 'quay-b', number: 102, members: [8, 9] },
    { at: 'cold-store', number: 103, members: [1, 2] },
    ALL,
  ).design;
}

/** The demo as it starts: as cabled, with the faults that are there to be found. */
export const asCabled = (): Design => cabled('Brackwater Ferries', false);

/** The demo as it was meant to be. */
export const asMeant = (): Design => cabled('Brackwater Ferries', true);

/**
 * A third way: the two core switches as a pair that others take for one, with the uplinks of both quays as bundles
 * over the pair. The second cable between the quays is bundled with both ends passive, and so never comes up.
 */
export function asPair(): Design {
  const design = asMeant();
  const draft = new DesignDraft(design.name, design);
  const [peer, ours] = ['pair', ['core-east', 'core-west']] as const;
  draft
    .link(['core-east', 5], ['core-west', 5], 1000, '1')
    .link(['quay-a', 13], ['quay-b', 13], 1000, ALL)
    .bundle({ at: 'quay-a', number: 104, members: [12, 13] }, { at: 'quay-b', number: 104, members: [12, 13] }, ALL);
  for (const b of design.bundles.slice(-2)) b.activity = 'passive';
  design.pairs = [
    {
      id: peer,
      domain: 10,
      switches: [...ours] as [string, string],
      peer: ['core-east:1--core-west:1', 'core-east:2--core-west:2'],
      keepalive: 'core-east:5--core-west:5',
    },
  ];
  // Both have what the primary has, so that nothing moves when it goes.
  const placed = table([...EAST, ...WEST, 199], 4096);
  for (const s of design.switches) if (ours.some((name) => name === s.id)) s.vlanPriority = placed;
  const uplinks = [
    { quay: 'quay-a', ports: { 'core-east': 3, 'core-west': 4 } },
    { quay: 'quay-b', ports: { 'core-east': 4, 'core-west': 3 } },
  ] as const;
  uplinks.forEach(({ quay, ports }, i) => {
    const end = (at: string, name: string, number: number, members: string[]): Bundle => ({
      id: `${at}:lag${number}`,
      switch: at,
      name,
      number,
      members,
      kind: 'lacp',
      vlans: ALL,
    });
    design.bundles.push(end(quay, 'to-operations', 110 + i, [`${quay}:1`, `${quay}:2`]));
    for (const at of ours)
      design.bundles.push({ ...end(at, `to-${quay}`, 110 + i, [`${at}:${ports[at]}`]), shared: 1 + i });
  });
  design.goals = design.goals.filter((g) => g.type !== 'root');
  return design;
}
