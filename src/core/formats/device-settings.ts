/** Settings of each switch as text that names no maker: whole, or what differs between two designs. */
import { bundlesOf, modeOf, portById, portsOf, settingWords } from '../design';
import type { Bundle, Design, Port, Switch } from '../design';
import { BUNDLE_KIND_WORDS, MODE_WORDS } from '../messages';
import { mstConfigOf } from '../network';
import { formatVlanRanges } from '../standard';

/** Fields that are drawn, or said in another way. */
const ELSEWHERE = new Set([
  'id',
  'name',
  'switch',
  'number',
  'mac',
  'tier',
  'group',
  'x',
  'y',
  'off',
  'region',
  'protocol',
  'members',
  'kind',
  'speed',
  'description',
  'mstName',
  'mstRevision',
  'vlanInstance',
]);

/** Every setting of an element, a line each; those of tables by value, with their VLANs together. */
export function settingLines(design: Design, kind: string, element: object): string[] {
  return Object.entries(element).flatMap(([field, value]) => {
    if (ELSEWHERE.has(field) || value === undefined) return [];
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return [settingWords(design, kind, field, value)];
    const byValue = new Map<unknown, number[]>();
    for (const [key, v] of Object.entries(value as Record<string, unknown>))
      byValue.set(v, [...(byValue.get(v) ?? []), Number(key)]);
    const trees = field.startsWith('vlan') ? 'VLANs' : 'instances';
    return [...byValue].map(
      ([v, keys]) => `${settingWords(design, kind, field, v)} for ${trees} ${formatVlanRanges(keys)}`,
    );
  });
}

/** `bundle to-quay-b: ports 3, 4; LACP`. */
export function bundleLine(design: Design, { name, members, kind }: Bundle): string {
  const ports = members.map((m) => portById(design, m)?.name ?? m).join(', ');
  return `bundle ${name}: ports ${ports}; ${BUNDLE_KIND_WORDS[kind]}`;
}

function portLines(design: Design, e: Port | Bundle): string[] {
  const lines = settingLines(design, 'members' in e ? 'bundle' : 'port', e);
  if ('members' in e) {
    return [bundleLine(design, e), ...lines.map((l) => `  ${l}`)];
  }
  return lines.length === 0 ? [] : [`port ${e.name}`, ...lines.map((l) => `  ${l}`)];
}

function deviceLines(design: Design, s: Switch): string[] {
  const mode = modeOf(design, s);
  const config = mode === 'mstp' ? mstConfigOf(design, s) : null;
  return [
    `switch ${s.name}, ${s.mac}`,
    `  spanning tree: ${MODE_WORDS[mode]}`,
    ...(config
      ? [
          `  region '${config.name}', revision ${config.revision}, digest ${config.digest}`,
          ...config.instances.map(
            (i) =>
              `  instance ${i}: VLANs ${formatVlanRanges([...config.map.keys()].filter((v) => v > 0 && v < 4095 && config.map[v] === i))}`,
          ),
        ]
      : []),
    ...settingLines(design, 'switch', s).map((l) => `  ${l}`),
    ...[...portsOf(design, s.id), ...bundlesOf(design, s.id)].flatMap((e) => portLines(design, e)).map((l) => `  ${l}`),
  ];
}

/** Everything that is set, device by device. */
export const exportSettings = (design: Design): string =>
  `${design.switches.map((s) => deviceLines(design, s).join('\n')).join('\n\n')}\n`;
