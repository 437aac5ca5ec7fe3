/** Agents of a running design, asked over the network by our own client and by Debian's. */
import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createSocket } from 'node:dgram';
import { promisify } from 'node:util';
import { asMeant } from '../src/demo/brackwater';
import { quarryInstances } from '../src/demo/quarry';
import { solveDesign } from '../src/core/trees';
import { AnswerBook, asBuilt, compareWithDesign, readObservedFiles, readSnmp, readWalkText } from '../src/core/observe';
import type { Answer } from '../src/core/observe';
import type { SnmpCredentials } from '../src/api/observe';
import { snmpFence } from '../src/api/observe';
import { serveAgent } from '../src/server/snmp/agent';
import { discover, insideFence } from '../src/server/snmp/discover';
import { StandIn } from '../src/server/snmp/stand-in';
import { readTarget, walkAgent } from '../src/server/snmp/walk';

const run = promisify(execFile);
const COMMUNITY: SnmpCredentials = { version: '2c', community: 'harbour' };
const USER: SnmpCredentials = {
  version: '3',
  user: 'watch',
  authProtocol: 'sha',
  authKey: 'a key for tests',
  privProtocol: 'aes',
  privKey: 'another key here',
};
const SPARE = { timeout: 400, retries: 0, pause: 0 };

/** A port that is free at the moment. */
const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const socket = createSocket('udp4').bind(0, '127.0.0.1', () => {
      const { port } = socket.address();
      socket.close(() => resolve(port));
    });
  });

const asking = (address: string, port: number, credentials: SnmpCredentials, more: object = {}) =>
  discover({
    seeds: [{ address, port }],
    credentials,
    fence: snmpFence.parse(more),
    signal: new AbortController().signal,
    progress: () => undefined,
  });

test.each([
  ['trees per VLAN', asMeant(), COMMUNITY],
  ['instances', quarryInstances(), USER],
])('%s: from one address on, every switch is found, and is as designed', async (_, design, credentials) => {
  const network = new StandIn(design, { port: await freePort(), speed: 1, credentials: [credentials] });
  await network.start();
  try {
    const [first] = network.switches as [(typeof network.switches)[number]];
    const { observations, faults } = await asking(first.address, first.port, credentials);
    expect(faults).toEqual([]);
    expect(observations.map((o) => o.name).sort()).toEqual(design.switches.map((s) => s.name).sort());
    const { network: read } = asBuilt(observations, 'read');
    expect(compareWithDesign(design, read)).toEqual([]);
    // Every tree that some switch runs was read, the further ones as bridges of their own.
    const run = solveDesign(design).trees.filter((t) => t.outcome.root.some((r) => r >= 0));
    expect(read.trees).toHaveLength(run.length);
  } finally {
    network.stop();
  }
});

test('a link that fails in the network is in the next reading', async () => {
  const design = asMeant();
  const network = new StandIn(design, { port: await freePort(), speed: 20, credentials: [COMMUNITY] });
  await network.start();
  try {
    const link = design.links.find(
      (l) => 'port' in l.a && 'port' in l.b && `${l.a.port} ${l.b.port}`.includes('gate'),
    )!;
    network.happen({ id: 'e', at: 0, kind: 'link-down', link: link.id });
    const [first] = network.switches as [(typeof network.switches)[number]];
    await new Promise((resolve) => setTimeout(resolve, 600));
    const { observations } = await asking(first.address, first.port, COMMUNITY);
    const found = compareWithDesign(design, asBuilt(observations, 'read').network);
    expect(found.map((d) => [d.kind, d.verdict])).toContainEqual(['link', 'missing']);
  } finally {
    network.stop();
  }
});

test('a fence holds: networks, hops and devices', async () => {
  expect(insideFence('192.0.2.77', ['192.0.2.64/26'])).toBe(true);
  expect(insideFence('192.0.2.128', ['192.0.2.64/26'])).toBe(false);
  const network = new StandIn(asMeant(), { port: await freePort(), speed: 1, credentials: [COMMUNITY] });
  await network.start();
  try {
    const [first] = network.switches as [(typeof network.switches)[number]];
    const { observations, faults } = await asking(first.address, first.port, COMMUNITY, { depth: 1 });
    expect(observations.length).toBeGreaterThan(1);
    expect(observations.length).toBeLessThan(10);
    expect(faults[0]).toMatch(/neighbours? beyond 127\.20\.0\.0\/24, 1 hop or 500 devices/);
    expect((await asking(first.address, first.port, COMMUNITY, { follow: false })).observations).toHaveLength(1);
  } finally {
    network.stop();
  }
});

(existsSync('/usr/bin/snmpbulkwalk') ? test : test.skip)(
  'an independent client reads the same, by community and by key',
  async () => {
    const design = asMeant();
    const network = new StandIn(design, { port: await freePort(), speed: 1, credentials: [COMMUNITY, USER] });
    await network.start();
    try {
      const [first] = network.switches as [(typeof network.switches)[number]];
      const at = `${first.address}:${first.port}`;
      const keys = [
        '-v3',
        '-l',
        'authPriv',
        '-u',
        'watch',
        '-a',
        'SHA',
        '-A',
        'a key for tests',
        '-x',
        'AES',
        '-X',
        'another key here',
      ];
      const walks = await Promise.all(
        [
          ['/usr/bin/snmpwalk', '-v2c', '-c', 'harbour'],
          ['/usr/bin/snmpbulkwalk', '-v2c', '-c', 'harbour'],
          ['/usr/bin/snmpbulkwalk', ...keys],
        ].map(
          async ([tool, ...who]) => (await run(tool!, [...who, '-On', '-t', '5', at, '.1'], { maxBuffer: 1e8 })).stdout,
        ),
      );
      const ours = await walkAgent(first, COMMUNITY, { ...SPARE, timeout: 3000, signal: new AbortController().signal });
      const source = { kind: 'snmp', name: at, at: null } as const;
      const told = readSnmp(ours.rows, source);
      for (const text of walks) expect(readSnmp(readWalkText(text).rows, source)).toEqual(told);
      // One bridge of several: by its community, and in its context.
      const whole = readSnmp(ours.rows, source, ours.logical);
      expect(whole.trees.map((t) => t.id)).toContain('vlan-130');
      for (const who of [
        ['-v2c', '-c', 'harbour/vlan-130'],
        [...keys, '-n', 'vlan-130'],
      ]) {
        const { stdout } = await run('/usr/bin/snmpbulkwalk', [...who, '-On', '-t', '5', at, '.1'], { maxBuffer: 1e8 });
        const rows = [...ours.rows.filter((r) => !r.oid.startsWith('1.3.6.1.2.1.17.')), ...readWalkText(stdout).rows];
        expect(readSnmp(rows, source).trees[0]).toEqual(whole.trees.find((t) => t.id === 'vlan-130'));
        // As files in the folder of the device it is the same tree, under the names of the ports.
        const file = (name: string, text: string) => {
          const path = `${first.name}/${name}`;
          return { path, inside: path, octets: new TextEncoder().encode(text), at: null };
        };
        const { observations } = readObservedFiles([file('all.txt', walks[0]!), file('vlan-130.txt', stdout)]);
        const { trees, switches } = asBuilt(observations, 'read').network;
        const own = (ports: readonly { port: string; role: unknown }[]) => ports.map((p) => `${p.port} ${p.role}`);
        expect(own(trees.find((t) => t.id === 'vlan-130')!.ports)).toEqual(
          own(whole.trees.find((t) => t.id === 'vlan-130')!.ports),
        );
        expect(switches.find((x) => x.name === first.name)?.source).toHaveLength(2);
      }
    } finally {
      network.stop();
    }
  },
  60_000,
);

const SYSTEM: Answer[] = [{ oid: '1.3.6.1.2.1.1.5.0', value: new TextEncoder().encode('shed'), syntax: 'octets' }];
const NUMBERS = (count: number): Answer[] =>
  Array.from({ length: count }, (_, i) => ({
    oid: `1.3.6.1.2.1.2.2.1.3.${i + 1}`,
    value: 6,
    syntax: 'integer' as const,
  }));

test('a wrong community, a wrong key, and an address without an agent get a sentence', async () => {
  const port = await freePort();
  const { close } = await serveAgent({ address: '127.0.0.1', port }, [COMMUNITY, USER], {
    book: () => new AnswerBook(SYSTEM),
  });
  const walk = (of: SnmpCredentials) =>
    walkAgent({ address: '127.0.0.1', port }, of, { ...SPARE, signal: new AbortController().signal });
  try {
    const wrong = await walk({ version: '2c', community: 'not-this-one' });
    expect(wrong.faults[0]).toContain('No answer came from 127.0.0.1');
    expect(JSON.stringify(wrong)).not.toContain('not-this-one');
    const key = await walk({ ...USER, authKey: 'not the right one' });
    expect(key.rows).toEqual([]);
    expect(key.faults[0]).toMatch(/refused the credentials|No answer came/);
    expect(JSON.stringify(key)).not.toContain('not the right one');
    expect((await walk(COMMUNITY)).rows).toHaveLength(1);
  } finally {
    close();
  }
}, 20_000);

test('an agent that stops answering in the middle, and one that repeats itself, leave what they answered', async () => {
  const port = await freePort();
  const signal = new AbortController().signal;
  let asked = 0;
  const stopping = await serveAgent({ address: '127.0.0.1', port }, [COMMUNITY], {
    book: () => {
      // After some requests it says nothing more.
      if (++asked > 10) throw new Error('gone');
      return new AnswerBook([...SYSTEM, ...NUMBERS(500)]);
    },
  });
  const stopped = await walkAgent({ address: '127.0.0.1', port }, COMMUNITY, { ...SPARE, signal });
  stopping.close();
  expect(stopped.rows.length).toBeGreaterThan(0);
  expect(stopped.faults.at(-1)).toContain('stopped answering below');

  const other = await freePort();
  const circle = await serveAgent({ address: '127.0.0.1', port: other }, [COMMUNITY], {
    book: () => {
      const book = new AnswerBook([...SYSTEM, ...NUMBERS(3)]);
      // After the last row comes the first one again.
      book.after = (oid) => book.answers.find((a) => a.oid > oid) ?? book.answers[1];
      return book;
    },
  });
  const round = await walkAgent({ address: '127.0.0.1', port: other }, COMMUNITY, { ...SPARE, signal });
  circle.close();
  expect(round.rows.length).toBeGreaterThanOrEqual(4);
  expect(round.faults.join(' ')).toContain('repeat in a loop');
}, 20_000);

test('addresses are read as they are written, and names are none', () => {
  expect(readTarget('192.0.2.10')).toEqual({ address: '192.0.2.10', port: 161 });
  expect(readTarget('snmp://192.0.2.10:1161')).toEqual({ address: '192.0.2.10', port: 1161 });
  for (const text of ['shed.example.net', '192.0.2', '192.0.2.10:0', '192.0.2.10:99999', ''])
    expect(readTarget(text)).toBeNull();
});
