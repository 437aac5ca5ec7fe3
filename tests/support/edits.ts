/** Edits in tests: random ones, and some applied and taken back again. */
import fc from 'fast-check';
import { applyEdits, setField } from '@/core/design';
import type { Design, Edit } from '@/core/design';
import { vlanMembership } from '@/core/standard';

/** The design after edits that have to fit; their inverse has to lead back. */
export function after(design: Design, edits: readonly Edit[]): Design {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults.map((f) => f.sentence).join('\n'));
  const back = applyEdits(applied.design, applied.inverse);
  expect(back.ok && back.design).toEqual(design);
  return applied.design;
}

/** A random edit of a setting that spanning tree looks at. */
export const settingEdits = fc
  .record({ what: fc.nat({ max: 9 }), at: fc.nat(), value: fc.constantFrom(1, 2, 4, 19, 38, 100) })
  .map(({ what, at, value }) => (design: Design): Edit | null => {
    const port = design.ports[at % Math.max(1, design.ports.length)];
    const bridge = design.switches[at % design.switches.length]!;
    const link = design.links[at % Math.max(1, design.links.length)];
    if (what < 3) return port ? setField('port', port.id, what === 0 ? 'vlanCost.10' : 'cost', value) : null;
    if (what === 3) return port ? setField('port', port.id, 'priority', (value % 16) * 16) : null;
    if (what === 4) return setField('switch', bridge.id, 'vlanPriority.20', (value % 16) * 4096);
    if (what === 5) return setField('switch', bridge.id, 'priority', (value % 16) * 4096);
    if (what === 6) return link ? setField('link', link.id, 'down', value > 4) : null;
    if (!port) return null;
    if (what > 7) {
      const native = [null, 10, 20][value % 3]!;
      const carried = native === null || vlanMembership(port.vlans ?? 'all')[native] === 1;
      return carried ? setField('port', port.id, 'native', native) : null;
    }
    return port.native === 10 ? null : setField('port', port.id, 'vlans', value > 4 ? '20' : null);
  });
