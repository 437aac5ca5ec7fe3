import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readDesignText } from '../core/design';
import { rehearse } from '../core/simulation';
import { alikeAt, pcapng, portWords } from '../core/trace';
import { asMeant } from '../demo/brackwater';
import { file, folder, printed } from '../../tests/support/command-line';
import { observe } from './observe';
import { eventOf } from './stand-in';

const LLDP = path.join(__dirname, '../../tests/fixtures/lldp');
const PLAIN = { follow: true };
interface Output {
  readonly switches: { readonly name: string }[];
  readonly links: { readonly a: object; readonly b: object; readonly certainty: string }[];
  readonly questions: { readonly text: string }[];
  readonly differences: { readonly device: string; readonly field: string; readonly verdict: string }[];
}
const output = () => JSON.parse(printed.out) as Output;

test('a folder of neighbour lists is drawn; a file that cannot be read gets a sentence', async () => {
  const out = path.join(folder, 'drawn.json');
  expect(await observe([LLDP], { ...PLAIN, json: true, out })).toBe(0);
  expect(printed.err).toContain('truth.json is none of what can be read');
  const { switches, links, differences } = output();
  expect(switches.map((s) => s.name)).toEqual(['dock-3', 'dock-4', 'quay-1', 'quay-2', 'shed-5']);
  expect(links.every((l) => l.certainty === 'lldp')).toBe(true);
  expect(differences).toEqual([]);
  const read = readDesignText(readFileSync(out, 'utf8'));
  expect(read.ok && read.design.links).toHaveLength(links.length);
});

test('against its own drawing nothing differs, and against another design something does', async () => {
  const out = path.join(folder, 'own.json');
  await observe([LLDP], { ...PLAIN, json: true, out });
  expect(await observe([LLDP], { ...PLAIN, against: out })).toBe(0);
  expect(printed.out).toContain('As designed.');
  const drawn = JSON.parse(readFileSync(out, 'utf8')) as { links: unknown[] };
  writeFileSync(out, JSON.stringify({ ...drawn, links: drawn.links.slice(1) }));
  printed.out = '';
  expect(await observe([LLDP], { ...PLAIN, json: true, against: out })).toBe(1);
  expect(output().differences).toMatchObject([{ field: 'link', verdict: 'unexpected' }]);
});

test('a capture on disk is read in pieces, and held against its design', async () => {
  const design = asMeant();
  const trace = rehearse(design, { id: 'x', name: 'x', until: 20, events: [], probes: [] });
  const capture = path.join(folder, 'wire.pcapng');
  const names = (p: string) => portWords(design, p);
  writeFileSync(capture, pcapng(trace.frames, { names, alike: alikeAt(design, trace), of: 'every-vlan' }));
  const against = file('meant.json', JSON.stringify(design));
  expect(await observe([capture], { ...PLAIN, json: true, against })).toBe(1);
  // One switch sends nothing, since every port of it is a root or alternate port.
  expect(output().differences).toMatchObject([{ device: 'workshop', verdict: 'not-observed' }]);
});

test('what cannot be read ends with a sentence and status 2', async () => {
  expect(await observe([path.join(folder, 'nowhere')], PLAIN)).toBe(2);
  expect(printed.err).toContain('There is no file and no folder called');
  expect(await observe(['snmp://shed.example.net'], PLAIN)).toBe(2);
  expect(printed.err).toContain('is no address to ask');
  expect(await observe(['snmp://127.0.0.1:9'], PLAIN)).toBe(2);
  expect(printed.err).toContain('No credentials');
  const credentials = file('secret.json', JSON.stringify({ version: '2c', comunity: 'hush-hush' }));
  expect(await observe(['snmp://127.0.0.1:9'], { ...PLAIN, credentials })).toBe(2);
  expect(printed.err).not.toContain('hush-hush');
});

test('events of a stand-in are typed by the names of what they happen to', () => {
  const design = asMeant();
  const link = design.links.find((l) => l.id === 'quay-a:4--gate:1')!;
  expect(eventOf(design, 'fail gate 1 – quay-a 4')).toMatchObject({ kind: 'link-down', link: link.id });
  expect(eventOf(design, `restore ${link.id}`)).toMatchObject({ kind: 'link-up', link: link.id });
  expect(eventOf(design, 'off core-east')).toMatchObject({ kind: 'switch-off', switch: 'core-east' });
  expect(eventOf(design, 'explode core-east')).toBeNull();
});
