import { asCabled, asMeant } from '../../demo/brackwater';
import { emptyDesign } from '../design';
import { solveDesign } from '../trees';
import { reportOf } from './report';
import { SECTION_IDS } from './section-names';

const sections = (text: string) => [...text.matchAll(/<section id="([a-z]+)">/g)].map((m) => m[1]);

test('the report of the demo has every section, each switch, and a drawing for each tree that differs', () => {
  const design = asCabled();
  const text = reportOf(design);
  // Without regions there is nothing to say of instances.
  expect(sections(text)).toEqual(SECTION_IDS.filter((id) => id !== 'instances'));
  for (const s of design.switches) expect(text).toContain(`<h3>${s.name}</h3>`);
  const folds = new Set(solveDesign(design).trees.map((t) => t.fold));
  expect(text.match(/<svg/g)).toHaveLength(folds.size);
  expect(text).toContain('VLAN 130 at one end only');
  expect(text).not.toMatch(/<script|src=|href=|url\(/);
});

test('a region is written with its digest', () => {
  const design = asCabled();
  design.mode = 'mstp';
  design.regions = [{ id: 'r', name: 'harbour', revision: 3, map: { '1': '110-130' } }];
  const text = reportOf(design, ['instances']);
  expect(sections(text)).toEqual(['instances']);
  expect(text).toMatch(/<td>harbour<\/td>\s*<td>3<\/td>\s*<td>[0-9A-F]{32}<\/td>/);
});

test('notes that are shown are listed, and the drawings point at them', () => {
  const design = asCabled();
  design.notes = [
    { id: 'a', text: 'Key with the porter', about: ['gate'], layer: 'access' },
    { id: 'b', text: 'not this one', about: ['gate'], hidden: true },
  ];
  const text = reportOf(design, ['notes', 'trees']);
  expect(text).toContain('Key with the porter');
  expect(text).not.toContain('not this one');
  expect(text).toContain('class="noted">note 1<');
  design.notes = [];
  expect(sections(reportOf(design, ['notes', 'roots']))).toEqual(['roots']);
});

test('names are text, whatever they hold; paper and sections are as asked', () => {
  const design = { ...asCabled(), name: '<script>alert("&")</script>' };
  const text = reportOf(design, ['roots', 'summary'], 'Letter');
  expect(text).not.toContain('<script>');
  expect(text).toContain('&lt;script&gt;alert(&quot;&amp;&quot;)&lt;/script&gt;');
  expect(text).toContain('size: Letter');
  expect(sections(text)).toEqual(['summary', 'roots']);
});

test('a design with nothing in it says so in each section', () => {
  const text = reportOf(emptyDesign('nothing'));
  expect(text).toContain('No tree runs on this design.');
  expect(text).toContain('Nothing can fail.');
});

test('settings are said in the words of the trade, tables entry by entry', () => {
  const text = reportOf(asMeant(), ['settings']);
  expect(text).toMatch(/priority 4096 for VLAN 110/);
  expect(text).toContain('BPDU guard');
  expect(text).toContain('VLANs 110,');
  expect(text).not.toMatch(/vlanPriority|bpduGuard|\[object/);
});
