/** Whatever a design holds and whatever of it is selected: the page is drawn, and its words are words. */
import fc from 'fast-check';
import type { Design } from '@/core/design';
import { asCabled, asMeant } from '@/demo/brackwater';
import type { StageId } from '@/ui/session/stages';
import { bundledNetworks } from './support/bundled-networks';
import { mstNetworks } from './support/mst-networks';
import { runs } from './support/runs';
import { pageOf, wordsOf } from './support/screens';
import { smallDesign } from './support/small-design';
import { wholeNetworks } from './support/whole-networks';

jest.mock('next/navigation', () => {
  const screens: { at: { path: string } } = jest.requireActual('./support/screens');
  return { usePathname: () => screens.at.path, useRouter: () => ({}) };
});

const KINDS = {
  switch: 'switches',
  host: 'hosts',
  port: 'ports',
  bundle: 'bundles',
  link: 'links',
  segment: 'segments',
  note: 'notes',
} as const;

/** Fields that hold no id. */
const WORDS = new Set(['name', 'text', 'type', 'kind', 'mode', 'tier', 'group']);

/** The design with ids that no word holds, and names of their own. */
function withStrangeIds(design: Design): Design {
  const copy = structuredClone(design) as unknown as Record<string, unknown>;
  const ids = new Map<string, string>();
  for (const list of Object.values(copy))
    if (Array.isArray(list))
      for (const element of list as { id?: unknown }[])
        if (typeof element === 'object' && typeof element.id === 'string') ids.set(element.id, `zq${ids.size}xj`);
  const other = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') return WORDS.has(key) ? value : (ids.get(value) ?? value);
    if (Array.isArray(value)) return value.map((v) => other(v, key));
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, other(v, k)]));
  };
  return other(copy, '') as Design;
}

const STRANGE =
  /\b(?:NaN|undefined|null|Infinity|zq\d+xj)\b|\[object |\b1 (?:cables|ports|switches|links|members|hosts)\b/;

async function readPage(design: Design, stage: StageId, query: string): Promise<void> {
  const strange = wordsOf(await pageOf(design, stage, query)).filter((words) => STRANGE.test(words));
  expect({ stage, query, strange }).toEqual({ stage, query, strange: [] });
}

/** One thing of each kind, the nth; and two switches, once with the way between them. */
function selections(design: Design, n: number): string[] {
  const one = Object.entries(KINDS).flatMap(([kind, list]) => {
    const all = design[list];
    return all.length === 0 ? [] : [`sel=${kind}~${encodeURIComponent(all[n % all.length]!.id)}`];
  });
  const [a, b] = [design.switches[n % design.switches.length]!, design.switches[(n + 1) % design.switches.length]!];
  const two = a === b ? [] : [`sel=switch~${a.id}&sel=switch~${b.id}`, `sel=switch~${a.id}&sel=switch~${b.id}&path=1`];
  return ['', 'panel=goals', ...one, ...two];
}

async function readPages(design: Design, n: number): Promise<void> {
  const strange = withStrangeIds(design);
  for (const query of selections(strange, n)) {
    await readPage(strange, 'trees', query);
    await readPage(strange, 'cabling', query);
  }
  for (const { id } of strange.bundles.slice(0, 2)) await readPage(strange, 'bundles', `sel=bundle~${id}`);
  await readPage(strange, 'bundles', '');
}

test.each([
  ['the demo as cabled', asCabled],
  ['the demo as meant', asMeant],
  ['a design with everything', smallDesign],
])('%s', async (_, design) => {
  for (let n = 0; n < 2; n++) await readPages(design(), n);
});

test.each([
  ['whole networks', wholeNetworks],
  ['networks with bundles', bundledNetworks],
  ['networks with regions', mstNetworks],
])('%s', async (_, arbitrary) => {
  await fc.assert(fc.asyncProperty(arbitrary, fc.nat({ max: 50 }), readPages), { ...runs(6), endOnFailure: true });
});
