/** The file of a rehearsal, read by an independent dissector where one is installed. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pcapng, portWords } from '@/core/trace';
import { rehearse } from '@/core/simulation';
import type { Design } from '@/core/design';
import { asMeant } from '@/demo/brackwater';

const installed = spawnSync('tshark', ['--version']).status === 0;
const read = (file: string, ...more: string[]) =>
  execFileSync('tshark', ['-r', file, ...more], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })
    .split('\n')
    .filter(Boolean);

const mstp: Design = {
  ...asMeant(),
  mode: 'mstp',
  regions: [{ id: 'r', name: 'quay', revision: 1, map: { '1': '110,120', '2': '140' } }],
};

(installed ? test : test.skip).each([
  ['rapid, by VLAN', asMeant()],
  ['classic, by VLAN', { ...asMeant(), mode: 'per-vlan-stp' as const }],
  ['rapid', { ...asMeant(), mode: 'rstp' as const }],
  ['classic', { ...asMeant(), mode: 'stp' as const }],
  ['instances', mstp],
])('%s: every frame decodes, none is malformed', (_, design) => {
  const trace = rehearse(design, {
    id: 's',
    name: 's',
    until: 40,
    events: [{ id: 'e', at: 5, kind: 'link-down', link: 'quay-a:3--ticket-hall:1' }],
  });
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'knot-path-pcapng-')), 'run.pcapng');
  writeFileSync(
    file,
    pcapng(trace.frames, (port) => portWords(design, port)),
  );
  expect(read(file)).toHaveLength(trace.frames.count);
  expect(read(file, '-Y', '_ws.malformed || _ws.expert.severity >= 0x00600000')).toEqual([]);
  const kinds = new Set(read(file, '-T', 'fields', '-e', '_ws.col.Protocol').map((p) => p.trim()));
  expect([...kinds].every((k) => ['STP', 'LACP'].includes(k) || k === '')).toBe(true);
});
