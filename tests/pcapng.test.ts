/** The file of a rehearsal, read by an independent dissector where one is installed. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { alikeAt, packetCount, pcapng, portWords } from '@/core/trace';
import type { FrameFile, Trace } from '@/core/trace';
import { rehearse } from '@/core/simulation';
import type { Design } from '@/core/design';
import { asMeant } from '@/demo/brackwater';

const installed = spawnSync('tshark', ['--version']).status === 0;
const read = (file: string, ...more: string[]) =>
  execFileSync('tshark', ['-r', file, ...more], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })
    .split('\n')
    .filter(Boolean);

const fileOf = (design: Design, trace: Trace, of: FrameFile['of']): FrameFile => ({
  names: (port) => portWords(design, port),
  alike: alikeAt(design, trace),
  of,
});
const written = (design: Design, trace: Trace, of: FrameFile['of']): string => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'knot-path-pcapng-')), 'run.pcapng');
  writeFileSync(file, pcapng(trace.frames, fileOf(design, trace, of)));
  return file;
};

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
  ['keepalives', { ...asMeant(), ports: asMeant().ports.map((p) => ({ ...p, oneWay: 'report' as const })) }],
])('%s: every frame decodes, none is malformed', (_, design) => {
  const trace = rehearse(design, {
    id: 's',
    name: 's',
    until: 40,
    events: [{ id: 'e', at: 5, kind: 'link-down', link: 'quay-a:3--ticket-hall:1' }],
  });
  const file = written(design, trace, 'every-vlan');
  expect(read(file)).toHaveLength(packetCount(trace.frames, fileOf(design, trace, 'every-vlan')));
  expect(read(file, '-Y', '_ws.malformed || _ws.expert.severity >= 0x00600000')).toEqual([]);
  const kinds = new Set(read(file, '-T', 'fields', '-e', '_ws.col.Protocol').map((p) => p.trim()));
  expect([...kinds].filter((k) => !['STP', 'LACP', 'OAM', ''].includes(k))).toEqual([]);
});

(installed ? test : test.skip)('VLANs that go alike have a BPDU each, or one that says for which it speaks', () => {
  const design = asMeant();
  const trace = rehearse(design, { id: 's', name: 's', until: 10, events: [], probes: [] });
  const vlansIn = (file: string) =>
    [...new Set(read(file, '-Y', 'frame.interface_name == "quay-a 4"', '-T', 'fields', '-e', 'vlan.id'))].sort();
  expect(vlansIn(written(design, trace, 'every-vlan'))).toEqual(['110', '120', '130', '140', '150', '160', '199']);
  const once = written(design, trace, 'one-for-alike');
  expect(vlansIn(once)).toEqual(['110', '140', '160']);
  expect(read(once, '-T', 'fields', '-e', 'frame.comment')).toContain('speaks for VLANs 110, 120, 130');
  // Each names its VLAN in its bridge identifiers too.
  const named = read(
    written(design, trace, 'every-vlan'),
    '-Y',
    'vlan.id == 150',
    '-T',
    'fields',
    '-e',
    'stp.bridge.ext',
  );
  expect(new Set(named)).toEqual(new Set(['150']));
});
