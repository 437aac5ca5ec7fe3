/** Members that come back, members that are kept, and minimums by rate. */
import { emptyDesign } from '../design';
import type { Bundle, Design } from '../design';
import { bundleVerdicts } from '../network';
import { rehearse } from './run';
import { runOf } from '../../../tests/support/rehearsals';

/** Two switches with a bundle of `speeds` between them. */
function bundled(speeds: readonly number[], both: Partial<Bundle>): Design {
  const design = { ...emptyDesign('bundle'), mode: 'rstp' as const };
  for (const [i, s] of ['a', 'b'].entries()) {
    design.switches.push({ id: s, name: s, mac: `00:00:5e:00:53:0${i + 1}` });
    speeds.forEach((speed, m) =>
      design.ports.push({ id: `${s}.${m + 1}`, switch: s, name: `${m + 1}`, number: m + 1, speed }),
    );
    const members = speeds.map((_, m) => `${s}.${m + 1}`);
    design.bundles.push({ id: `${s}-b`, switch: s, name: 'b', number: 100, members, kind: 'lacp', ...both });
  }
  speeds.forEach((_, m) =>
    design.links.push({ id: `l${m + 1}`, a: { port: `a.${m + 1}` }, b: { port: `b.${m + 1}` } }),
  );
  return design;
}
/** How many members of a's bundle are active, from when on. */
const activeOf = (trace: ReturnType<typeof runOf>) =>
  trace.happenings.flatMap((h) =>
    h.kind === 'bundle' && h.bundle === 'a-b' ? [[Math.round(h.at / 1e5) / 10, h.active]] : [],
  );
const lostAndBack = [
  { kind: 'link-down', at: 10, link: 'l1' },
  { kind: 'link-up', at: 20, link: 'l1' },
];
const down = (at: number, link: string) => ({ kind: 'link-down', at, link });

test('a member that comes back waits beside others, and none waits where no other carries', () => {
  const design = bundled([1000, 1000], { returnDelay: 30 });
  expect(activeOf(runOf(design, 60, lostAndBack))).toEqual([
    [10, 1],
    [50, 2],
  ]);
  const alone = runOf(design, 60, [down(5, 'l2'), ...lostAndBack]);
  expect(activeOf(alone).at(-1)![0]).toBeLessThan(25);
});

test('members that carry are kept, or give way to better ones', () => {
  const carrying = (keepsWorking: boolean | undefined) => {
    const trace = runOf(
      bundled([1000, 1000], { maxActive: 1, ...(keepsWorking ? { keepsWorking } : {}) }),
      90,
      lostAndBack,
    );
    return activeOf(trace).filter(([at]) => at! >= 20);
  };
  expect(carrying(true)).toEqual([]);
  expect(carrying(undefined).length).toBeGreaterThan(0);
});

test('a minimum by rate takes a bundle down at both ends, as one by number does', () => {
  const design = bundled([1000, 1000, 1000], { minRate: 1500 });
  const lost = runOf(design, 60, [down(10, 'l1'), down(20, 'l2')]);
  expect(activeOf(lost)).toEqual([
    [10, 2],
    [20, 0],
  ]);
  const links = design.links.map((l, i) => (i < 2 ? { ...l, down: true } : l));
  expect(bundleVerdicts({ ...design, links }).map((v) => v.outcome)).toEqual(['too-few', 'too-few']);
});

test('the system of a bundle decides in place of that of its switch', () => {
  const [first, second] = [1, 2].map((n) => ({ lacpPriority: n }));
  const design = bundled([1000, 1000], { maxActive: 1 });
  const ports = design.ports.map((p) => ({ ...p, ...(p.id === 'a.1' || p.id === 'b.2' ? first : second) }));
  const active = (systemPriority?: number) => {
    const bundles = design.bundles.map((b) => (b.id === 'b-b' && systemPriority ? { ...b, systemPriority } : b));
    const [verdict] = bundleVerdicts({ ...design, ports, bundles });
    return verdict!.members.filter((m) => m.state === 'active').map((m) => m.port);
  };
  expect([active(), active(1)]).toEqual([['a.1'], ['a.2']]);
});

test('a host whose cards are bundled may be plugged in at any port, and may change its cables meanwhile', () => {
  const design = emptyDesign('host');
  design.mode = 'rstp';
  design.switches.push({ id: 'a', name: 'a', mac: '00:00:5e:00:53:01' });
  design.hosts.push({ id: 'h', name: 'h', bond: 'lacp-active' });
  for (const number of [10, 11, 12]) {
    design.ports.push({ id: `a:${number}`, switch: 'a', name: `${number}`, number, speed: 1000 });
    design.links.push({ id: `l${number}`, a: { port: `a:${number}` }, b: { host: 'h' } });
  }
  const members = ['a:10', 'a:11', 'a:12'];
  design.bundles.push({ id: 'b', switch: 'a', name: 'b', number: 100, members, kind: 'lacp' });
  const { happenings } = rehearse(design, {
    id: 's',
    name: 's',
    until: 60,
    events: [{ id: 'e', at: 5, kind: 'set', label: 'out', edits: [{ type: 'remove', kind: 'link', id: 'l10' }] }],
  });
  const carrying = happenings.flatMap((h) => (h.kind === 'bundle' ? [h.active] : []));
  expect(carrying.at(-1)).toBe(2);
});
