/** A run to export: frames as pcapng, lanes and events as CSV. */
import type { Design } from '../../core/design';
import { MOST_PACKETS, alikeAt, gapsOf, packetCount, pcapng, portWords, storyOf } from '../../core/trace';
import type { FrameFile, Trace } from '../../core/trace';
import { SECOND } from '../../core/standard';

export function save(name: string, parts: BlobPart[], type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob(parts, { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

const cell = (value: string | number): string => {
  const text = String(value);
  return /[",\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
};

const csv = (rows: readonly (readonly (string | number)[])[]) =>
  rows.map((r) => r.map(cell).join(',')).join('\r\n') + '\r\n';

/** Frames as a file, of some ports or all; of VLANs that go alike a BPDU each where that is not too much, else one for all of them. */
export function savePcapng(
  design: Design,
  trace: Trace,
  ports: ReadonlySet<string> | null,
  of: FrameFile['of'] = 'every-vlan',
): void {
  const file: FrameFile = {
    names: (port) => portWords(design, port),
    wanted: (port) => ports === null || ports.has(port),
    alike: alikeAt(design, trace),
    of,
  };
  if (of === 'every-vlan' && packetCount(trace.frames, file) > MOST_PACKETS)
    return savePcapng(design, trace, ports, 'one-for-alike');
  const name = of === 'every-vlan' ? 'rehearsal.pcapng' : 'rehearsal-one-for-alike.pcapng';
  save(name, [pcapng(trace.frames, file) as BlobPart], 'application/octet-stream');
}

export function saveLanes(design: Design, trace: Trace): void {
  const rows: (string | number)[][] = [['lane', 'what', 'tree or VLAN', 'from s', 'state', 'role']];
  for (const lane of trace.ports)
    for (const s of lane.spans)
      rows.push(['port', portWords(design, lane.port), lane.tree, s.at / SECOND, s.state, s.role]);
  for (const lane of trace.contacts)
    for (const s of lane.spans)
      rows.push([
        'contact',
        `${lane.from} - ${lane.to}`,
        lane.vlan,
        s.at / SECOND,
        s.ok ? 'in contact' : 'lost',
        s.path.map((p) => portWords(design, p)).join(' > '),
      ]);
  for (const lane of trace.roots)
    for (const s of lane.spans) rows.push(['root', s.roots.join(' '), lane.tree, s.at / SECOND, '', '']);
  save('rehearsal-lanes.csv', [csv(rows)], 'text/csv');
}

export function saveStory(design: Design, trace: Trace): void {
  const rows: (string | number)[][] = [['at s', 'kind', 'what']];
  for (const line of storyOf(design, trace)) rows.push([line.at / SECOND, line.kind, line.text]);
  for (const lane of trace.contacts)
    for (const gap of gapsOf(lane))
      rows.push([
        gap.from / SECOND,
        'gap',
        `${lane.from} - ${lane.to}: ${((gap.to ?? trace.until) - gap.from) / SECOND} s`,
      ]);
  save('rehearsal-events.csv', [csv(rows)], 'text/csv');
}
