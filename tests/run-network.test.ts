/** A design as a network of agents, started over the API, asked over the network, and gone with the connection. */
import { standInLine } from '../src/api/stand-in';
import type { StandInLine } from '../src/api/stand-in';
import { asMeant } from '../src/demo/brackwater';
import { handleApi } from '../src/server/http';
import { walkAgent } from '../src/server/snmp/walk';
import { compilePrograms } from './support/programs';

beforeAll(compilePrograms, 60_000);

const post = (at: string, body: unknown) =>
  handleApi(
    new Request(`http://localhost/api${at}`, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'Content-Type': 'application/json' },
    }),
  );

/** Lines of an answer as they come; `end` closes it. */
function linesOf(response: Response) {
  const reader = response.body!.getReader();
  let rest = '';
  const next = async (): Promise<StandInLine | null> => {
    while (!rest.includes('\n')) {
      const { done, value } = await reader.read();
      if (done) return null;
      rest += new TextDecoder().decode(value);
    }
    const cut = rest.indexOf('\n');
    const line = standInLine.parse(JSON.parse(rest.slice(0, cut)));
    rest = rest.slice(cut + 1);
    return line;
  };
  const until = async (kind: StandInLine['kind']) => {
    for (let line = await next(); line; line = await next()) if (line.kind === kind) return line;
    throw new Error(`The answer ended before '${kind}'.`);
  };
  return { until, end: () => reader.cancel() };
}

const STATUS = '1.3.6.1.2.1.2.2.1.8.';

test('a design runs as a network, a link fails by hand, and all of it ends with the connection', async () => {
  const design = asMeant();
  const lines = linesOf(await post('/stand-in', { design, speed: 20 }));
  const ready = await lines.until('ready');
  if (ready.kind !== 'ready') throw new Error('not ready');
  expect(ready.switches.map((s) => s.name).sort()).toEqual(design.switches.map((s) => s.name).sort());
  const gate = ready.switches.find((s) => s.name === 'gate')!;
  const ask = () =>
    walkAgent(
      gate,
      { version: '2c', community: ready.community },
      { timeout: 1500, retries: 1, pause: 0, signal: new AbortController().signal },
    );
  const down = (rows: Awaited<ReturnType<typeof ask>>['rows']) =>
    rows.filter((r) => r.oid.startsWith(STATUS) && r.value === 2).length;
  const before = down((await ask()).rows);
  const link = design.links.find((l) => l.id === 'quay-a:4--gate:1')!.id;
  expect((await post(`/stand-in/${ready.id}/events`, { kind: 'fail', link })).status).toBe(200);
  await lines.until('running');
  expect(down((await ask()).rows)).toBe(before + 1);
  await lines.end();
  expect((await post(`/stand-in/${ready.id}/events`, { kind: 'restore', link })).status).toBe(404);
  const silent = await ask();
  expect(silent.rows).toEqual([]);
}, 60_000);

test('what is no design, or no event, is refused with a sentence', async () => {
  const answer = await post('/stand-in', { design: { format: 'other' }, speed: 1 });
  expect(answer.status).toBe(422);
  expect((await post('/stand-in', { design: asMeant(), speed: 0 })).status).toBe(400);
  expect((await post('/stand-in/none/events', { kind: 'fail', link: 'x' })).status).toBe(404);
});
