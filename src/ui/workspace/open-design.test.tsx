/** What the server sends of a design: a picture that needs no script. */
import { prerender } from 'react-dom/static';
import { opened } from '../../../tests/support/screens';
import { campus } from '../../demo/campus';
import { asCabled } from '../../demo/brackwater';
import type { Design } from '../../core/design';
import type { StageId } from '../session/stages';
import { OpenDesign } from './OpenDesign';

jest.mock('next/navigation', () => {
  const screens: { at: { path: string } } = jest.requireActual('../../../tests/support/screens');
  return { usePathname: () => screens.at.path, useRouter: () => ({}) };
});

async function sent(design: Design, stage: StageId, query = ''): Promise<string> {
  const { head, variant } = await opened(design, stage);
  const text = JSON.stringify(variant);
  const { prelude } = await prerender(
    <OpenDesign head={head} variantId="v" variantText={text} stage={stage} query={query} />,
  );
  return new Response(prelude).text();
}

/** Tags of the elements of a class, with their attributes. */
const tags = (html: string, name: string): string[] =>
  [...html.matchAll(/<(?:g|path|svg)[^>]*class="([^"]*)"[^>]*>/g)]
    .filter(([, names]) => names!.split(' ').includes(name))
    .map(([tag]) => tag);

test('the chart of a small design is in the page: every plate, port and host has its place, every cable its way', async () => {
  const design = asCabled();
  const page = await sent(design, 'trees');
  const [html = ''] = /<svg class="chart"[^]*?<\/svg>/.exec(page) ?? [];
  expect(tags(html, 'plate')).toHaveLength(design.switches.length);
  for (const name of ['plate', 'peg', 'spot', 'sum', 'knot']) {
    expect(tags(html, name).length).toBeGreaterThan(0);
    for (const tag of tags(html, name)) expect(tag).toMatch(/ transform="translate\(-?[\d.]+ -?[\d.]+\)/);
  }
  for (const tag of [...tags(html, 'line'), ...tags(html, 'knot')]) expect(tag).toMatch(/ d="M/);
  expect(html).not.toContain('NaN');
});

test('so does the drawing of the cabling, with its notes', async () => {
  const page = await sent(asCabled(), 'cabling');
  const [html = ''] = /<svg class="chart"[^]*?<\/svg>/.exec(page) ?? [];
  expect(tags(html, 'plate')).toHaveLength(asCabled().switches.length);
  for (const name of ['plate', 'peg', 'spot', 'words'])
    for (const tag of tags(html, name)) expect(tag).toMatch(/ transform="translate\(/);
  for (const tag of [...tags(html, 'line'), ...tags(html, 'span')]) expect(tag).toMatch(/ d="M/);
  expect(tags(html, 'words')).toHaveLength(asCabled().notes.length);
  expect(html).toMatch(/<rect class="frame[^"]*" x="[^"]+" y="[^"]+" width="[\d.]+" height="[\d.]+"/);
});

test('it is the tree that the address names, and nothing of it can be pressed', async () => {
  const roots = async (query: string) =>
    tags(await sent(asCabled(), 'trees', query), 'plate-root').map((tag) => /data-id="([^"]*)"/.exec(tag)?.[1]);
  expect(new Set(await roots('tree=vlan-110'))).toEqual(new Set(['core-east']));
  expect(new Set(await roots('tree=vlan-199'))).not.toContain('core-east');
  expect(await sent(asCabled(), 'trees')).toMatch(/<div class="opening" inert="" aria-hidden="true"/);
});

test.each<[string, Design, StageId]>([
  ['a large design', campus({ switches: 200, vlans: 40, outcomes: 6 }), 'trees'],
  ['another stage', asCabled(), 'hand-over'],
])('of %s the name comes first', async (_, design, stage) => {
  const html = await sent(design, stage);
  expect(html).toContain('Opening…');
  expect(html).toContain('Ferries');
  expect(tags(html, 'chart')).toEqual([]);
});
