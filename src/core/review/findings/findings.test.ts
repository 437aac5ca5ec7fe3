/** Each rule finds what it is for in the demo with one thing set wrongly, and says nothing before. */
import { setField } from '../../design';
import type { Design } from '../../design';
import { solveDesign } from '../../trees';
import { asCabled, asMeant, asPair } from '../../../demo/brackwater';
import { acceptanceOf, findingsOf } from '../review';
import { RULES } from '.';
import { NEAR, after, codesOf, sentencesOf } from '../../../../tests/support/findings';

const withEach = (design: Design, list: 'switches' | 'ports' | 'bundles', change: object): Design => ({
  ...design,
  [list]: design[list].map((e) => ({ ...e, ...change })),
});
const meant = asMeant();
const BUNDLE = meant.bundles.find((b) => b.members.length === 2)!;
const FACING = meant.bundles.find((b) => b.name === 'to-core-east')!;

const CASES: readonly (readonly [code: string, wrong: Design])[] = [
  ['root-by-mac', asCabled()],
  ['root-on-access', after(meant, setField('switch', 'gate', 'vlanPriority.110', 0))],
  ['successor-on-access', after(meant, setField('switch', 'gate', 'vlanPriority.110', 4096))],
  [
    'successor-by-mac',
    {
      ...meant,
      switches: meant.switches.map(({ vlanPriority: _, priority: __, ...s }) =>
        s.id === 'core-east' ? { ...s, priority: 4096 } : s,
      ),
    },
  ],
  ['scales-mixed', after(meant, setField('switch', 'gate', 'costScale', 'short'))],
  ['half-duplex', after(meant, setField('port', NEAR, 'duplex', 'half'))],
  ['vlans-differ', after(meant, setField('port', NEAR, 'vlans', '110,120'))],
  ['untagged-differ', after(meant, setField('port', NEAR, 'native', 110))],
  ['edge-to-switch', after(meant, setField('port', NEAR, 'edge', true))],
  ['host-not-edge', { ...meant, ports: meant.ports.map(({ edge: _, ...p }) => p) }],
  ['host-no-guard', { ...meant, ports: meant.ports.map(({ bpduGuard: _, ...p }) => p) }],
  ['filter-to-switch', after(meant, setField('port', NEAR, 'bpduFilter', true))],
  ['filter-loops', { ...meant, ports: meant.ports.map((p) => (p.switch === 'gate' ? { ...p, bpduFilter: true } : p)) }],
  ['root-guard-on-root-port', withEach(meant, 'ports', { rootGuard: true })],
  ['bundle-down', { ...meant, bundles: meant.bundles.map((b) => ({ ...b, activity: 'passive' as const })) }],
  [
    'bundle-against',
    { ...meant, bundles: meant.bundles.map((b) => (b.id === BUNDLE.id ? { ...b, kind: 'static' as const } : b)) },
  ],
  ['bundle-static', withEach(meant, 'bundles', { kind: 'static' })],
  ['bundle-one-cable', asCabled()],
  ['bundle-minimum', withEach(meant, 'bundles', { minActive: 2 })],
  ['bundle-slow', meant],
  ['member-suspended', after(meant, setField('port', BUNDLE.members[0]!, 'speed', 100))],
  [
    'vlan-parted',
    {
      ...meant,
      ports: meant.ports.map((p) => (p.switch === 'gate' && ['1', '2'].includes(p.name) ? { ...p, vlans: '110' } : p)),
    },
  ],
  [
    'vlan-no-port',
    {
      ...meant,
      switches: meant.switches.map((s) => (s.id === 'gate' ? { ...s, vlanPriority: { '3999': 4096 } } : s)),
      ports: meant.ports.map((p) => (p.switch === 'gate' ? { ...p, vlans: '110' } : p)),
    },
  ],
  ['vlan-not-made', after(meant, setField('port', NEAR, 'vlans', '110,3999'))],
  ['hello-unlike', after(meant, setField('switch', 'core-west', 'helloTime', 1))],
  [
    'timers-diameter',
    { ...meant, switches: meant.switches.map((s) => ({ ...s, maxAge: 7, helloTime: 2, forwardDelay: 5 })) },
  ],
  ['timers-together', after(meant, setField('switch', 'gate', 'maxAge', 40))],
  ['classic-beside-rapid', after(meant, setField('switch', 'gate', 'protocol', 'per-vlan-stp'))],
  ['modes-mixed', after(meant, setField('switch', 'gate', 'protocol', 'rstp'))],
  [
    'trees-joined',
    after(
      after(meant, setField('switch', 'gate', 'protocol', 'rstp')),
      setField('port', 'quay-a:4', 'vlans', '110'),
      setField('port', 'quay-a:4', 'native', 110),
    ),
  ],
  ['single-link', asCabled()],
  ['single-switch', asCabled()],
  ['management-one-link', asCabled()],
  ['link-idle', asCabled()],
  ['link-carries-all', asCabled()],
  ['loop-guard-missing', meant],
  ['root-guard-missing', meant],
  [
    'overload',
    {
      ...meant,
      demands: [{ id: 'd', vlan: 110, from: { host: 'ferry-server' }, to: { host: 'ticket-desk' }, load: 90_000 }],
    },
  ],
  ['uplink-undescribed', after(meant, setField('port', NEAR, 'description', 'to the quay'))],
  ['pair-no-keepalive', { ...asPair(), pairs: asPair().pairs.map(({ keepalive: _, ...p }) => p) }],
  ['keepalive-over-peer', { ...asPair(), pairs: asPair().pairs.map((p) => ({ ...p, keepalive: p.peer[0]! })) }],
  ['peer-one-cable', { ...asPair(), pairs: asPair().pairs.map((p) => ({ ...p, peer: p.peer.slice(0, 1) })) }],
  ['too-many-trees', after(meant, setField('switch', 'gate', 'maxTrees', 2))],
  [
    'pair-inconsistent',
    { ...asPair(), switches: asPair().switches.map((s) => (s.id === 'core-west' ? { ...s, priority: 61440 } : s)) },
  ],
];

test.each(CASES)('%s is found', (code, wrong) => {
  expect(codesOf(wrong)).toContain(code);
});

/** Switches of one MST region in a row. */
function region(): Design {
  const design = {
    ...meant,
    mode: 'mstp' as const,
    bundles: [],
    regions: [{ id: 'r', name: 'harbour', revision: 1, map: { '1': '110-130', '2': '140-160' } }],
  };
  return { ...design, switches: design.switches.map(({ vlanPriority: _, ...s }) => s) };
}
const REGION_CASES: readonly (readonly [code: string, wrong: Design])[] = [
  [
    'region-differs',
    { ...region(), switches: region().switches.map((s) => (s.id === 'gate' ? { ...s, mstRevision: 2 } : s)) },
  ],
  ['instance-empty', { ...region(), regions: [{ ...region().regions[0]!, map: { '1': '110-160', '7': '3000' } }] }],
  ['vlan1-mapped', { ...region(), regions: [{ ...region().regions[0]!, map: { '1': '1,110' } }] }],
  ['instances-alike', region()],
  [
    'too-many-instances',
    {
      ...region(),
      regions: [
        {
          ...region().regions[0]!,
          map: Object.fromEntries(Array.from({ length: 65 }, (_, i) => [String(i + 1), String(2000 + i)])),
        },
      ],
    },
  ],
  [
    'vlan-parted-by-tree',
    {
      ...region(),
      ports: region().ports.map((p) => (p.switch === 'gate' ? { ...p, vlans: p.name === '1' ? '140' : '110,140' } : p)),
    },
  ],
];
test.each(REGION_CASES)('%s is found in a region', (code, wrong) => {
  expect(codesOf(wrong)).toContain(code);
});

/** A chain of switches deeper than its maximum age. */
function chain(length: number, maxAge?: number): Design {
  const own = Array.from({ length }, (_, i) => ({
    id: `s${i}`,
    name: `s${i}`,
    mac: `00:00:5e:00:53:${(i + 1).toString(16).padStart(2, '0')}`,
    priority: i === 0 ? 0 : 32768,
    ...(maxAge ? { maxAge, forwardDelay: 15 } : {}),
  }));
  const ports = own.flatMap(({ id }, i) =>
    [1, 2].map((n) => ({ id: `${id}.${n}`, switch: id, name: String(n), number: n, speed: 1000 + 0 * i })),
  );
  const links = own.slice(1).map((s, i) => ({ id: `l${i}`, a: { port: `s${i}.2` }, b: { port: `${s.id}.1` } }));
  return {
    ...meant,
    switches: own,
    ports,
    links,
    bundles: [],
    hosts: [],
    segments: [],
    goals: [],
    demands: [],
    scripts: [],
  };
}
test('trees that are too deep, and those that are deeper than usual', () => {
  expect(codesOf(chain(24))).toContain('too-deep');
  expect(codesOf(chain(9))).toContain('seven-switches');
  expect(codesOf(chain(7))).not.toContain('seven-switches');
});

test('a member that leads elsewhere is found', () => {
  const other = meant.ports.find(
    (p) => p.switch === 'gate' && !meant.links.some((l) => 'port' in l.a && l.a.port === p.id),
  );
  const at = meant.links.find((l) => [l.a, l.b].some((e) => 'port' in e && e.port === BUNDLE.members[0]))!;
  const side = 'port' in at.a && at.a.port === BUNDLE.members[0] ? 'b' : 'a';
  const port = other ?? { id: 'gate:40', switch: 'gate', name: '40', number: 40, speed: 10_000 };
  const moved = {
    ...meant,
    ports: meant.ports.includes(port) ? meant.ports : [...meant.ports, port],
    links: meant.links.map((l) => (l === at ? { ...l, [side]: { port: port.id } } : l)),
  };
  expect(codesOf(moved)).toContain('member-miscabled');
});

test('every rule is tried here, and odd bundles are found', () => {
  const tried = new Set([...CASES, ...REGION_CASES].map(([code]) => code));
  const elsewhere = ['too-deep', 'seven-switches', 'member-miscabled', 'bundle-odd'];
  expect(
    RULES.map((r) => r.code)
      .filter((code) => !tried.has(code))
      .sort(),
  ).toEqual([...elsewhere].sort());
  const three: Design = {
    ...meant,
    ports: [
      ...meant.ports,
      ...['core-east', 'core-west'].map((s) => ({ id: `${s}:60`, switch: s, name: '60', number: 60, speed: 10_000 })),
    ],
  };
  three.links = [...three.links, { id: 'third', a: { port: 'core-east:60' }, b: { port: 'core-west:60' } }];
  three.bundles = three.bundles.map((b) =>
    b.id === FACING.id || b.name === 'to-core-west' ? { ...b, members: [...b.members, `${b.switch}:60`] } : b,
  );
  expect(codesOf(three)).toContain('bundle-odd');
});

test('the design as it is meant has no fault', () => {
  expect(findingsOf(solveDesign(meant)).filter((f) => f.severity === 'fault')).toEqual([]);
});

test('a fix mends what it is for, of each rule once', () => {
  const tried = new Set<string>();
  for (const wrong of [...CASES, ...REGION_CASES].map(([, design]) => design))
    for (const finding of findingsOf(solveDesign(wrong))) {
      if (!finding.fix || tried.has(finding.code)) continue;
      tried.add(finding.code);
      const mended = after(wrong, ...finding.fix.edits);
      expect(sentencesOf(mended, finding.code)).not.toContain(finding.sentence);
    }
  expect(tried.size).toBeGreaterThan(10);
});

test('an accepted finding has its reason, and comes back when what it says changes', () => {
  const wrong = asCabled();
  const [finding] = findingsOf(solveDesign(wrong)).filter((f) => f.code === 'single-link');
  const accepted = after(wrong, {
    type: 'add',
    kind: 'acceptance',
    value: acceptanceOf(finding!, 'a1', 'the duct is full'),
  });
  const again = findingsOf(solveDesign(accepted)).find((f) => f.key === finding!.key)!;
  expect(again.accepted).toBe('the duct is full');
  const fewer = { ...accepted, vlans: accepted.vlans.filter((v) => v.number !== 160) };
  expect(findingsOf(solveDesign(fewer)).find((f) => f.key === finding!.key)?.accepted).toBeNull();
});

/** Both ends of a bundle with one active member at a time: the other one waits. */

test.each([
  ['a tree per VLAN', meant, 7],
  ['instances', region(), 3],
  ['one tree', { ...region(), mode: 'rstp' as const }, 1],
  ['one of a pair', asPair(), 7],
] as const)('a switch runs as many trees as its mode has: %s', (_, design, trees) => {
  const limited = (maxTrees: number) => after(design, setField('switch', 'core-west', 'maxTrees', maxTrees));
  if (trees > 1)
    expect(sentencesOf(limited(trees - 1), 'too-many-trees').join()).toContain(`has ${trees} spanning trees`);
  expect(codesOf(limited(trees))).not.toContain('too-many-trees');
});
