import { readFileSync } from 'node:fs';
import path from 'node:path';
import { applyEdits, emptyDesign, integrityFaults } from '../design';
import type { Design } from '../design';
import { readNeighbourCsv, readNeighbourJson, switchNames } from '../formats';
import { acceptFinding, checkNeighbours } from './neighbours';
import type { Finding, Reception } from './neighbours';

const folder = path.join(__dirname, '../../../tests/fixtures/lldp');
const json = (name: string) => JSON.parse(readFileSync(path.join(folder, name), 'utf8')) as never;
interface Truth {
  switches: { name: string; mac: string; ports: { ifname: string; number: number }[] }[];
  cables: { switch: string; ifname: string }[][];
}
const truth: Truth = json('truth.json');
const heard: Reception[] = truth.switches.flatMap(({ name }) => {
  const read = readNeighbourJson(`${name}.json`, json(`${name}.json`));
  if (!read.ok) throw new Error(read.faults[0]!.sentence);
  return read.receptions;
});

/** The design behind the samples, drawn as it is cabled. */
function drawn(): Design {
  const design = emptyDesign('docks');
  for (const s of truth.switches) {
    design.switches.push({ id: s.name, name: s.name, mac: s.mac });
    for (const p of s.ports)
      design.ports.push({ id: `${s.name}:${p.ifname}`, switch: s.name, name: p.ifname, number: p.number, speed: 1000 });
  }
  truth.cables.forEach(([a, b], i) => {
    const end = (e: typeof a) => ({ port: `${e!.switch}:${e!.ifname}` });
    design.links.push({ id: `l${i}`, a: end(a), b: end(b) });
  });
  return design;
}
const design = drawn();
let n = 0;
const newId = (prefix: string) => `${prefix}new${++n}`;
const verdicts = (list: readonly Finding[]) => list.map((f) => f.verdict);
const without = (...ids: string[]): Design => ({ ...design, links: design.links.filter((l) => !ids.includes(l.id)) });

/** Takes findings into a design one after another until nothing differs. */
function acceptAll(start: Design, receptions: readonly Reception[]): Design {
  let now = start;
  for (let i = 0; i < 40; i++) {
    const open = checkNeighbours(now, receptions).find((f) => f.verdict !== 'as drawn');
    if (!open) return now;
    const applied = applyEdits(now, acceptFinding(now, open, receptions, newId));
    if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
    now = applied.design;
  }
  throw new Error('acceptAll: differences left');
}

test('the samples say exactly what their cabling is', () => {
  const findings = checkNeighbours(design, heard);
  expect(verdicts(findings)).toEqual(truth.cables.map(() => 'as drawn'));
  expect(findings.every((f) => f.sentence === 'Both ends report the drawn cable.')).toBe(true);
});
test('a cable that is not drawn is unexpected, and accepting it draws it', () => {
  const findings = checkNeighbours(without('l2'), heard);
  expect(findings.filter((f) => f.verdict !== 'as drawn')).toMatchObject([
    { verdict: 'unexpected', a: { name: 'quay-1', port: 'p3' }, b: { name: 'dock-3', port: 'p1' } },
  ]);
  const now = acceptAll(without('l2'), heard);
  expect(now.links).toHaveLength(design.links.length);
  expect(now.ports).toHaveLength(design.ports.length);
});
test('a drawn cable without LLDP at either end is missing, and accepting it removes it', () => {
  const quiet = heard.filter(
    (h) => !(h.from === 'quay-1' && h.fromPort === 'p3') && !(h.from === 'dock-3' && h.fromPort === 'p1'),
  );
  const [finding] = checkNeighbours(design, quiet);
  expect(finding).toMatchObject({ verdict: 'missing', link: 'l2' });
  expect(acceptAll(design, quiet).links.map((l) => l.id)).not.toContain('l2');
});
test('a cable in another port than drawn is listed with both ports, and accepting moves it', () => {
  const moved: Design = {
    ...design,
    links: design.links.map((l) => (l.id === 'l8' ? { ...l, b: { port: 'dock-4:p5' } } : l)),
  };
  const [finding] = checkNeighbours(moved, heard);
  expect(finding).toMatchObject({ verdict: 'other port', link: 'l8', sentence: 'Drawn from dock-3 p4 to dock-4 p5.' });
  expect(acceptAll(moved, heard).links.find((l) => l.id === 'l8')).toEqual(design.links.find((l) => l.id === 'l8'));
});
test('two cables that were swapped come right', () => {
  const swapped: Design = {
    ...design,
    links: design.links.map((l) =>
      l.id === 'l0' ? { ...l, b: { port: 'quay-2:p2' } } : l.id === 'l1' ? { ...l, b: { port: 'quay-2:p1' } } : l,
    ),
  };
  expect(verdicts(checkNeighbours(swapped, heard)).filter((v) => v === 'other port')).toHaveLength(2);
  const ends = (d: Design) => d.links.map((l) => [JSON.stringify(l.a), JSON.stringify(l.b)].sort().join()).sort();
  expect(ends(acceptAll(swapped, heard))).toEqual(ends(design));
});
test('a switch that is not drawn comes in with its address and its cables', () => {
  const known = (l: Design['links'][number]) => ![l.a, l.b].some((e) => 'port' in e && e.port.startsWith('shed-5'));
  const small: Design = {
    ...design,
    switches: design.switches.filter((s) => s.id !== 'shed-5'),
    ports: design.ports.filter((p) => p.switch !== 'shed-5'),
    links: design.links.filter(known),
  };
  const now = acceptAll(small, heard);
  expect(now.switches.at(-1)).toMatchObject({ name: 'shed-5', mac: '00:00:5e:00:53:51' });
  expect(now.links).toHaveLength(design.links.length);
  expect(integrityFaults(now)).toEqual([]);
});
test('only what a telling switch should hear is missed', () => {
  const one = heard.filter((h) => h.from === 'shed-5');
  const found = checkNeighbours(design, one);
  expect(verdicts(found)).toEqual(['as drawn', 'as drawn']);
  expect(found[0]!.sentence).toBe('shed-5 reports the drawn cable; the other end has no list.');
});
test('a port that hears one end only is said', () => {
  const half = heard.filter((h) => !(h.from === 'dock-4' && h.fromPort === 'p4'));
  const found = checkNeighbours(design, half).find((f) => f.link === 'l8')!;
  expect(found.verdict).toBe('as drawn');
  expect(found.sentence).toBe('Received at one end only: dock-4 receives no LLDP from dock-3 p4.');
});
test('ports on one shared segment hear each other', () => {
  const hub: Design = { ...without('l8'), segments: [{ id: 'g', name: 'hub', ports: ['dock-3:p4', 'dock-4:p4'] }] };
  expect(verdicts(checkNeighbours(hub, heard))).not.toContain('unexpected');
});

describe('reading', () => {
  test('the short JSON spelling, keyed by interface and chassis name', () => {
    const short = {
      lldp: {
        interface: [
          {
            p3: {
              via: 'LLDP',
              chassis: {
                'dock-3': {
                  id: { type: 'mac', value: '00:00:5e:00:53:31' },
                  capability: [{ type: 'Bridge', enabled: true }],
                },
              },
              port: { id: { type: 'ifname', value: 'p1' }, descr: 'uplink' },
            },
          },
        ],
      },
    };
    expect(switchNames(['a/quay-1.json', 'b/quay-2.json', 'lldp.json'])).toEqual(['quay-1', 'quay-2', 'lldp']);
    expect(switchNames(['site/quay-1/lldp.json', 'site\\quay-2\\lldp.json', 'lldp.json'])).toEqual([
      'quay-1',
      'quay-2',
      'lldp',
    ]);
    const read = readNeighbourJson('some/where/quay-1.json', short);
    expect(read.ok && read.receptions).toEqual([
      { from: 'quay-1', fromPort: 'p3', to: 'dock-3', toPort: 'p1', toMac: '00:00:5e:00:53:31', toBridge: true },
    ]);
  });
  test('a table of neighbours; a row with an empty cell is left out and named', () => {
    const read = readNeighbourCsv(
      'n.csv',
      'switch,port,neighbour,neighbour_port\nquay-1,p3,dock-3,p1\nquay-1,p4,,p1\n',
    );
    expect(read).toMatchObject({
      ok: true,
      receptions: [{ from: 'quay-1', toPort: 'p1' }],
      refused: [{ row: 3, column: 'neighbour' }],
    });
  });
  test.each([
    ['another JSON', () => readNeighbourJson('x.json', { a: 1 }), /holds no list of LLDP neighbours/],
    ['another table', () => readNeighbourCsv('x.csv', 'a,b\n1,2\n'), /The header lacks 'switch'/],
  ])('%s is refused', (_, run, sentence) => {
    const read = run();
    expect(read.ok ? '' : read.faults[0]!.sentence).toMatch(sentence);
  });
});
