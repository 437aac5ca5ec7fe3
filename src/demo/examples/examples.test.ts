import { readDesign } from '../../core/design';
import { bundleVerdicts, mstConfigOf } from '../../core/network';
import { linkUseOf } from '../../core/analysis';
import { checkGoals } from '../../core/goals';
import { rehearse } from '../../core/simulation';
import { blockedPorts, isMacOnlyRoot, rootsOf, solveDesign } from '../../core/trees';
import { EXAMPLES, exampleById } from '.';

const design = (id: string) => exampleById(id)!.design();
const solved = (id: string) => solveDesign(design(id));

test('every example is a sound document, and small', () => {
  for (const example of EXAMPLES) {
    const read = readDesign(JSON.parse(JSON.stringify(example.design())));
    expect([example.id, read.ok ? [] : read]).toEqual([example.id, []]);
    expect(example.design().switches.length).toBeLessThanOrEqual(8);
    expect(example.question).toMatch(/\?$/);
  }
  expect(new Set(EXAMPLES.map((e) => e.id)).size).toBe(8);
});

test('the cellar is root by its address alone', () => {
  const own = solved('accidental-root');
  const [of] = own.trees;
  const [root] = rootsOf(of!);
  expect(own.topology.design.switches[root!]!.id).toBe('cellar');
  expect(isMacOnlyRoot(own, of!, root!)).toBe(true);
});

test('in the pyramid the faster side wins, and no cable is without a role', () => {
  const own = solved('pyramid');
  const [of] = own.trees;
  const index = own.topology.bridgeIndex.get('library')!;
  const port = own.topology.ports[of!.outcome.rootPort[index]!]!.element.id;
  expect(port).toBe('library:2');
  expect(blockedPorts(of!).length).toBe(4);
});

test('of two trunks one is idle, and the goals ask for both', () => {
  const own = solved('two-trunks');
  expect(linkUseOf(own).idle).toHaveLength(1);
  expect(checkGoals(own).map((g) => g.state)).toEqual(['broken', 'broken']);
});

test('one switch of the archive is outside of the region of the others', () => {
  const own = design('instances');
  const digest = (id: string) => {
    const s = own.switches.find((x) => x.id === id)!;
    return mstConfigOf(own, s).digest;
  };
  expect(digest('stacks')).toBe(digest('dark-room'));
  expect(digest('reading-hall')).not.toBe(digest('stacks'));
  expect(mstConfigOf(own, own.switches[3]!).name).toBe('archive');
});

test('the bundle never comes up, since both ends are passive', () => {
  expect(bundleVerdicts(design('silent-bundle')).map((v) => v.outcome)).toEqual(['never', 'never']);
});

test('nothing is blocked behind a core that acts as one', () => {
  const own = solved('shared-core');
  expect(own.trees.flatMap((of) => blockedPorts(of))).toEqual([]);
});

test('in the mixed closet a port blocks towards a core switch', () => {
  const own = solved('mixed-closet');
  expect(blockedPorts(own.byId.get('vlan-31')!).length).toBeGreaterThan(0);
});

test('a guard shuts the desk; without one the stranger becomes root', () => {
  const own = design('guarded-edge');
  const [guarded, open] = own.scripts.map((script) => rehearse(own, script));
  expect(guarded!.happenings.some((h) => h.kind === 'guard')).toBe(true);
  expect(open!.happenings.some((h) => h.kind === 'guard')).toBe(false);
  const roots = (trace: typeof guarded) => new Set(trace!.roots.flatMap((r) => r.spans.flatMap((s) => s.roots)));
  expect(roots(guarded)).toEqual(new Set(['cupboard']));
  expect(roots(open).size).not.toBe(1);
});
