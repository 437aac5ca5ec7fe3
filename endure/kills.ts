/** The server is killed in a stream of edits, again and again: what it acknowledged must be there afterwards. */
import path from 'node:path';
import { asCabled } from '../src/demo/brackwater';
import { call, edit, folderOf, pause, startServer } from './server';
import type { Head } from './server';
import type { Row } from './row';

interface Variant {
  readonly revision: number;
  readonly design: { readonly switches: readonly { readonly id: string; readonly x?: number }[] };
}

/** Edits one after another until the server is gone; the number of the last one that was acknowledged. */
async function stream(base: string, variant: string, from: number): Promise<number> {
  let acknowledged = from;
  for (let n = from; ; n++) {
    try {
      const step = { revision: n, label: `edit ${n}`, client: 'endure', key: `k${n}`, edits: edit(n + 1) };
      const { status } = await call(base, 'POST', `/api/variants/${variant}/steps`, step);
      if (status !== 201) return acknowledged;
      acknowledged = n + 1;
    } catch {
      return acknowledged;
    }
  }
}

export async function kills(count: number): Promise<Row> {
  const { dir, remove } = folderOf('kills');
  const file = path.join(dir, 'db.sqlite');
  let server = await startServer(file);
  const { value } = await call<Head>(server.base, 'POST', '/api/designs', { name: 'killed', design: asCabled() });
  const variant = value.variants[0]!.id;
  let [acknowledged, lost] = [0, 0];
  for (let i = 0; i < count; i++) {
    const running = stream(server.base, variant, acknowledged);
    await pause(20 + Math.random() * 250);
    await server.kill();
    const last = await running;
    server = await startServer(file);
    const { value: now } = await call<Variant>(server.base, 'GET', `/api/variants/${variant}`);
    const x = now.design.switches.find((s) => s.id === 'gate')!.x;
    if (now.revision < last || x !== now.revision % 90_000) lost++;
    acknowledged = now.revision;
    if ((i + 1) % 50 === 0) process.stderr.write(`  ${i + 1} kills, ${acknowledged} edits, ${lost} losses\n`);
  }
  await server.kill();
  remove();
  return {
    what: 'kill -9 in a stream of edits',
    runs: `${count} kills, ${acknowledged} edits`,
    result: `${lost} lost`,
    good: lost === 0,
  };
}
