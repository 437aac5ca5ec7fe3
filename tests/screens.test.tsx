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
import { STRANGE, withStrangeIds } from './support/strange-words';
import { wholeNetworks } from './support/whole-networks';

jest.mock('next/navigation', () => {
  const screens: { at: { path: string } } = jest.requireActual('./support/screens');
  return { usePathname: () => screens.at.path, useRouter: () => ({}) };
});

// Charts are drawn too, but for what needs a window.
jest.mock('@/ui/session/useInBrowser', () => ({ useInBrowser: () => true }));

const KINDS = {
  switch: 'switches',
  host: 'hosts',
  port: 'ports',
  bundle: 'bundles',
  link: 'links',
  segment: 'segments',
  note: 'notes',
} as const;

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
  const [strange] = withStrangeIds(design) as [Design];
  for (const query of selections(strange, n)) {
    await readPage(strange, 'trees', query);
    await readPage(strange, 'cabling', query);
  }
  for (const { id } of strange.bundles.slice(0, 2)) await readPage(strange, 'bundles', `sel=bundle~${id}`);
  for (const stage of ['bundles', 'rehearsal', 'review', 'hand-over', 'as-built'] as const)
    await readPage(strange, stage, '');
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
