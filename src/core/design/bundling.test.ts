import { asCabled } from '../../demo/brackwater';
import { applyEdits } from './edits';
import type { Design } from './schema';
import { solveDesign } from '../trees';
import { addMember, bundleLinks, joinable, parallelLinks, removeMember, splitBundles } from './bundling';
import { verdictOf } from '../network';
import type { BundleEdits } from './bundling';

const counter = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-${++n}`;
};
/** The demo with a second cable between the two quays. */
function doubled(more: { speed?: number; vlans?: string } = {}): Design {
  const design = asCabled();
  const vlans = '110,120,130,140,150,160,199';
  for (const at of ['quay-a', 'quay-b'])
    design.ports.push({ id: `${at}:13`, switch: at, name: '13', number: 13, speed: 1000, vlans, ...more });
  design.links.push({ id: 'second', a: { port: 'quay-b:13' }, b: { port: 'quay-a:13' } });
  return design;
}
const made = (design: Design, result: BundleEdits): Design => {
  if (!result.ok) throw new Error(result.sentence);
  const applied = applyEdits(design, result.edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};
const FIRST = 'quay-a:12--quay-b:12';
const sentence = (design: Design, links: string[]) => {
  const result = bundleLinks(design, links, counter());
  return result.ok ? '' : result.sentence;
};

test('parallel cables become a bundle that forms, numbered and named at each end by itself', () => {
  const design = doubled();
  expect(parallelLinks(design)).toEqual([{ a: 'quay-a', b: 'quay-b', links: [FIRST, 'second'] }]);
  const after = made(design, bundleLinks(design, [FIRST, 'second'], counter()));
  expect(after.bundles.slice(-2)).toMatchObject([
    { switch: 'quay-a', name: 'to-quay-b', number: 101, members: ['quay-a:12', 'quay-a:13'], kind: 'lacp' },
    { switch: 'quay-b', name: 'to-quay-a', number: 101, members: ['quay-b:12', 'quay-b:13'] },
  ]);
  expect(verdictOf(after, 'bundle-1')).toMatchObject({ outcome: 'forms', partner: { kind: 'bundle', id: 'bundle-2' } });
  const { topology } = solveDesign(after);
  expect(topology.portCost[topology.portIndex.get('bundle-1')!]).toBe(10000);
  expect(parallelLinks(after)).toEqual([]);
});

test('splitting gives the single ports back', () => {
  const design = doubled();
  const after = made(design, bundleLinks(design, [FIRST, 'second'], counter()));
  const applied = applyEdits(after, splitBundles(['bundle-1', 'bundle-2']));
  expect(applied.ok && applied.design.bundles).toEqual(design.bundles);
});

test('a cable joins at both ends, and leaves at both', () => {
  const design = doubled();
  const one = made(design, bundleLinks(design, [FIRST], counter()));
  const [near, far] = one.bundles.slice(-2) as [Design['bundles'][number], Design['bundles'][number]];
  expect(joinable(one, near, far)).toEqual(['second']);
  const two = made(one, addMember(one, near, far, 'second'));
  expect(two.bundles.slice(-2).map((b) => b.members.length)).toEqual([2, 2]);
  const [n, f] = two.bundles.slice(-2) as [typeof near, typeof far];
  const back = made(two, { ok: true, edits: removeMember(two, n, f, 'quay-a:13') });
  expect(back.bundles.slice(-2).map((b) => b.members)).toEqual([['quay-a:12'], ['quay-b:12']]);
});

/** The demo with a second card of a server at another port. */
function twoCards(at: string): Design {
  const design = asCabled();
  const port = {
    id: `${at}:21`,
    switch: at,
    name: '21',
    number: 21,
    speed: 10000,
    vlans: '110',
    native: 110,
    edge: true,
  };
  design.ports.push(port);
  design.links.push({ id: 'card', a: { port: port.id }, b: { host: 'ferry-server', card: '2' } });
  return design;
}
const CARDS = ['core-east:20--ferry-server', 'card'];

test('the cards of a server become a bundle at the switch, and the server speaks LACP', () => {
  const after = made(twoCards('core-east'), bundleLinks(twoCards('core-east'), CARDS, counter()));
  expect(after.bundles.at(-1)).toMatchObject({
    switch: 'core-east',
    name: 'to-ferry-server',
    members: ['core-east:20', 'core-east:21'],
    vlans: '110',
    edge: true,
  });
  expect(after.hosts.find((h) => h.id === 'ferry-server')!.bond).toBe('lacp-active');
  expect(verdictOf(after, 'bundle-1')).toMatchObject({ outcome: 'forms', partner: { kind: 'host' } });
});

test('the cards of a server at two switches become one bundle where these are a pair, and are refused where they are not', () => {
  const apart = twoCards('core-west');
  expect(sentence(apart, CARDS)).toMatch(/join core-east, core-west: all members/);
  apart.pairs = [{ id: 'pair', domain: 1, switches: ['core-east', 'core-west'], peer: [], keepalive: undefined }];
  const after = made(apart, bundleLinks(apart, CARDS, counter()));
  expect(after.bundles.slice(-2).map((b) => [b.switch, b.shared])).toEqual([
    ['core-east', 1],
    ['core-west', 1],
  ]);
});

describe('refused with the reason', () => {
  test('members of unlike speed, or with other VLANs', () => {
    expect(sentence(doubled({ speed: 10000 }), [FIRST, 'second'])).toMatch(
      /have different speeds, 10000 and 1000 Mb\/s: members of a bundle need one speed/,
    );
    expect(sentence(doubled({ vlans: '110' }), [FIRST, 'second'])).toMatch(
      /carry different VLANs: give them the same VLANs first/,
    );
    const design = doubled({ speed: 10000 });
    const one = made(design, bundleLinks(design, [FIRST], counter()));
    const [near, far] = one.bundles.slice(-2) as [Design['bundles'][number], Design['bundles'][number]];
    expect(addMember(one, near, far, 'second')).toMatchObject({ ok: false });
  });
  test('a port in two bundles, three switches, a host, nothing selected', () => {
    const design = doubled();
    const core = design.links.find((l) => 'port' in l.a && l.a.port === 'core-east:1')!.id;
    expect(sentence(design, [core])).toMatch(/is in bundle 'to-core-west' already: a port is in one bundle/);
    expect(sentence(design, [FIRST, 'quay-a:4--gate:1'])).toMatch(
      /: all members of a bundle join the same two switches/,
    );
    expect(sentence(design, ['gate:10--gate-camera', FIRST])).toMatch(/lead to one host, or all to switches/);
    expect(sentence(design, [])).toBe('Select the cables of the new bundle first.');
  });
});
