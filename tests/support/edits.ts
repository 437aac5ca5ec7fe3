/** Edits in tests: applied, and taken back again. */
import { applyEdits } from '@/core/design';
import type { Design, Edit } from '@/core/design';

/** The design after edits that have to fit; their inverse has to lead back. */
export function after(design: Design, edits: readonly Edit[]): Design {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults.map((f) => f.sentence).join('\n'));
  const back = applyEdits(applied.design, applied.inverse);
  expect(back.ok && back.design).toEqual(design);
  return applied.design;
}
