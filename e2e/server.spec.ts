import { expect } from '@playwright/test';
import http from 'node:http';
import { asCabled, asMeant } from '../src/demo/brackwater';
import { freshDemo, test } from './support';

/** A request with headers of our own choice, which browsers and fetch do not let one set. */
function raw(url: URL, headers: Record<string, string>, body?: Buffer): Promise<{ status: number; text: string }> {
  return new Promise((resolve, reject) => {
    const request = http.request(url, { method: body ? 'POST' : 'GET', headers }, (response) => {
      let text = '';
      response.on('data', (chunk) => (text += chunk));
      response.on('end', () => resolve({ status: response.statusCode ?? 0, text }));
    });
    request.on('error', reject);
    if (body) request.write(body);
    request.end();
  });
}

test('a foreign host or origin is refused', async ({ baseURL }) => {
  const url = new URL('/api/designs', baseURL);
  const foreignHost = await raw(url, { Host: 'attacker.example' });
  expect(foreignHost.status).toBe(403);
  expect(foreignHost.text).toContain("does not answer to the name 'attacker.example'");
  const foreignOrigin = await raw(url, { Origin: 'http://attacker.example' });
  expect(foreignOrigin.status).toBe(403);
  expect((await raw(url, { Origin: url.origin })).status).toBe(200);
});

test('an upload of 50 MB is refused with the limit, and what is not JSON with what is expected', async ({
  baseURL,
  request,
}) => {
  const url = new URL('/api/import', baseURL);
  const body = Buffer.alloc(50 * 1024 * 1024, 0x20);
  const lengths: Record<string, string>[] = [
    { 'Content-Length': String(body.length) },
    { 'Transfer-Encoding': 'chunked' },
  ];
  for (const length of lengths) {
    const large = await raw(url, { 'Content-Type': 'application/json', ...length }, body);
    expect(large.status).toBe(413);
    expect(large.text).toContain('larger than 8 MB');
  }
  expect((await request.get('/api/designs')).status()).toBe(200);
  const plain = await request.post('/api/designs', { headers: { 'Content-Type': 'text/plain' }, data: 'x' });
  expect(plain.status()).toBe(415);
});

test('pages carry a content security policy without inline script', async ({ request }) => {
  const policy = (await request.get('/')).headers()['content-security-policy'] ?? '';
  expect(policy).toContain("default-src 'self'");
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'(;|$)/);
  expect(policy).not.toMatch(/script-src[^;]*unsafe-inline/);
});

test('refusals name the place and the legal values', async ({ request }) => {
  const demo = await freshDemo(request, 'refusals');
  const send = async (edit: object) => {
    const response = await request.post(`/api/variants/${demo.variant}/steps`, {
      data: { revision: 0, label: 'x', client: 'c', edits: [edit] },
    });
    return { status: response.status(), error: (await response.json()).error };
  };
  const set = (kind: string, id: string, field: string, value: unknown) =>
    send({ type: 'set', kind, id, field, value });
  const priority = await set('switch', 'gate', 'priority', 2478);
  expect(priority.status).toBe(422);
  expect(priority.error.faults[0].path).toBe('switches[5].priority');
  expect(priority.error.sentence).toContain('steps of 4096 from 0 to 61440; the nearest is 4096');
  expect((await set('port', 'gate:1', 'cost', 0)).error.sentence).toContain('a whole number from 1 to 200000000');
  expect((await set('switch', 'gate', 'mac', '00:00:5e:00:53:33')).error.sentence).toContain("'crane-yard'");
  expect((await set('vlan', 'v110', 'number', 4095)).error.sentence).toContain('from 1 to 4094');
  expect((await set('port', 'gate:1', 'number', 2)).error.sentence).toContain('port number 2 twice');
  const link = { type: 'add', kind: 'link', value: { id: 'l', a: { port: 'gate:1' }, b: { port: 'nowhere' } } };
  expect((await send(link)).status).toBe(422);
  const missing = await request.get('/api/variants/none');
  expect(missing.status()).toBe(404);
  expect((await missing.json()).error.sentence).toContain("no variant 'none'");
});

test('reviews and plans are answered whole, or line by line with how far they are', async ({ request }) => {
  const [from, to] = [asCabled(), asMeant()];
  const whole = await request.post('/api/review', { data: { design: from, measure: 'none' } });
  const review = (await whole.json()) as { findings: object[]; failures: object[] };
  const lines = async (path: string, data: object) => {
    const response = await request.post(path, { data: { ...data, progress: true } });
    expect(response.headers()['content-type']).toContain('application/x-ndjson');
    return (await response.text())
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
  };
  const reviewed = await lines('/api/review', { design: from, measure: 'none' });
  expect(reviewed.map((l) => l.kind)).toEqual(['findings', 'failures', 'done']);
  expect(reviewed.at(-1)!.answer).toEqual(review);
  const planned = await lines('/api/plan', { from, to, seconds: 3 });
  expect(planned[0]).toMatchObject({ kind: 'progress', phase: 'table' });
  expect(planned.at(-1)).toMatchObject({ kind: 'done' });
  const refused = await lines('/api/plan', { from, to, at: 'north-mast' });
  expect(refused.at(-1)).toMatchObject({ kind: 'failed', sentence: expect.stringContaining('north-mast') });
  // Four at once: those before have left their places.
  expect((await request.post('/api/plan', { data: { from, to, at: 'north-mast' } })).status()).toBe(422);
});
