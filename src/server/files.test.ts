import { asCabled } from '../demo/brackwater';
import { campus } from '../demo/campus';
import { emptyDesign } from '../core/design';
import { stepStream } from './event-stream';
import { exportFile } from './export';
import { publish } from './bus';
import { summarise } from './summary';
import type { Step } from './variants';

const variant = {
  id: 'v',
  designId: 'd',
  name: 'As meant!',
  revision: 0,
  design: asCabled(),
  history: { undo: [], redo: [] },
};
const step = (revision: number): Step => ({
  revision,
  kind: 'edit',
  target: null,
  label: `e${revision}`,
  edits: [],
  client: 'c',
});

describe('export', () => {
  test('a design goes out under its name and comes in as it was', async () => {
    const response = exportFile('Brackwater Ferries', variant, 'json');
    expect(response.headers.get('Content-Disposition')).toBe('attachment; filename="brackwater-ferries-as-meant.json"');
    expect(await response.json()).toEqual(asCabled());
  });
  test('tables have the columns that import reads', async () => {
    const text = await exportFile('x', variant, 'links').text();
    expect(text.split('\r\n')[0]).toMatch(/^a_switch,a_port,b_switch,b_port,speed_mbps,/);
    expect(text.trim().split('\r\n')).toHaveLength(19);
  });
  test('an unknown format is refused with those there are', () => {
    expect(() => exportFile('x', variant, 'doc')).toThrow(
      "Format 'doc' is not known: it is one of json, graphml, topology, switches, links, vlans.",
    );
  });
});

describe('summary', () => {
  test('counts, and a drawing within its frame', () => {
    const { switches, links, trees, dots, lines } = summarise(asCabled());
    expect([switches, links, trees]).toEqual([10, 24, 7]);
    for (const [x, y] of dots) expect(x >= 0 && x <= 100 && y >= 0 && y <= 60).toBe(true);
    for (const [a, b] of lines) expect(dots[a] && dots[b]).toBeTruthy();
  });
  test('an empty design and a large one have a drawing too', () => {
    expect(summarise(emptyDesign('x'))).toMatchObject({ switches: 0, dots: [], lines: [] });
    const large = summarise(campus({ switches: 300, vlans: 3, outcomes: 3 }));
    expect(large.dots).toHaveLength(300);
    expect(large.lines.length).toBeLessThanOrEqual(400);
  });
});

test('a stream of steps first sends what was missed, then each as it is made, and ends when the window goes', async () => {
  const gone = new AbortController();
  const reader = stepStream('stream', [step(1), step(2)], gone.signal).getReader();
  publish('stream', step(3));
  let text = '';
  while (!text.includes('"revision":3')) text += new TextDecoder().decode((await reader.read()).value);
  expect(text.match(/id: \d/g)).toEqual(['id: 1', 'id: 2', 'id: 3']);
  gone.abort();
  expect((await reader.read()).done).toBe(true);
  publish('stream', step(4));
});
