import { asCabled } from '../demo/brackwater';
import { campus } from '../demo/campus';
import { emptyDesign } from '../core/design';
import { noticeStream } from './event-stream';
import { exportFile } from './export';
import { listenerCount, publish } from './bus';
import { summarise } from './summary';

const variant = { name: 'As meant!', design: asCabled() };

describe('export', () => {
  test('a design goes out under its name and comes in as it was', () => {
    const file = exportFile('Brackwater Ferries', variant, 'json');
    expect([file.name, file.type]).toEqual(['brackwater-ferries-as-meant.json', 'application/json']);
    expect(JSON.parse(file.text)).toEqual(asCabled());
  });
  test('tables have the columns that import reads', () => {
    const text = exportFile('x', variant, 'links').text;
    expect(text.split('\r\n')[0]).toMatch(/^a_switch,a_port,b_switch,b_port,speed_mbps,/);
    expect(text.trim().split('\r\n')).toHaveLength(19);
  });
  test('an unknown format is refused with those there are', () => {
    expect(() => exportFile('x', variant, 'doc')).toThrow(
      "Format 'doc' is not known: it is one of json, graphml, topology, linux-lab, openconfig, ieee-yang, settings, networkd, switches, links, vlans.",
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

test('a stream first says which database it is, then each notice as it comes, and ends when the browser goes', async () => {
  const gone = new AbortController();
  const reader = noticeStream('epoch-1', gone.signal).getReader();
  publish({ kind: 'step', variant: 'v', revision: 3, client: 'c' });
  let text = '';
  while (!text.includes('"revision":3')) text += new TextDecoder().decode((await reader.read()).value);
  expect(text.indexOf('"epoch":"epoch-1"')).toBeLessThan(text.indexOf('"revision":3'));
  expect(listenerCount()).toBe(1);
  gone.abort();
  expect((await reader.read()).done).toBe(true);
  expect(listenerCount()).toBe(0);
  publish({ kind: 'designs' });
});
