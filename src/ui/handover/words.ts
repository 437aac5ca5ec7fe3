/** Words of the hand-over stage. */
import { bundleById, portById, switchById } from '../../core/design';
import type { PlanStep } from '../../core/plan';
import { treeNames } from '../../core/trace';
import { parseTreeId } from '../../core/standard';
import { more } from '../../core/standard';

/** Lines of moved ports that are listed. */
const MOST = 4;

const treeVlan = (tree: string): readonly number[] => {
  const parts = parseTreeId(tree);
  return parts?.kind === 'vlan' ? [parts.vlan] : [];
};

/** `gate 2: none → alternate in VLANs 110, 120`, ports that change alike in several trees once. */
export function portChanges({ moved, before, after, work }: PlanStep): string[] {
  const groups = new Map<string, { name: string; own: boolean; trees: string[] }>();
  for (const { tree, ports } of moved)
    for (const p of ports) {
      const element = [after, before].map((d) => portById(d, p.id) ?? bundleById(d, p.id)).find(Boolean);
      const at = element && (switchById(after, element.switch) ?? switchById(before, element.switch));
      const name = `${at?.name ?? ''} ${element?.name ?? p.id}: ${p.before} → ${p.after}`;
      const known = groups.get(name) ?? { name, own: element?.switch === work.device, trees: [] };
      known.trees.push(tree);
      groups.set(name, known);
    }
  const lines = [...groups.values()].sort((a, b) => Number(b.own) - Number(a.own));
  return [
    ...lines.slice(0, MOST).map(({ name, trees }) => `${name} in ${treeNames(trees, treeVlan)}`),
    ...(lines.length > MOST ? [`and ${more(lines.length - MOST, 'change')}`] : []),
  ];
}

/** Where an outage stands on a scale from nothing over a millisecond and a second to half a minute, from 0 to 1. */
export function onScale(seconds: number): number {
  if (seconds <= 0) return 0;
  // A decade takes the same room; 10 µs stand at the left, 100 s at the right.
  const place = (Math.log10(seconds) + 5) / (Math.log10(100) + 5);
  return Math.min(1, Math.max(0.02, place));
}
/** Marks of the scale. */
export const SCALE = [
  { seconds: 0, name: 'none' },
  { seconds: 0.001, name: '1 ms' },
  { seconds: 1, name: '1 s' },
  { seconds: 30, name: '30 s' },
] as const;
