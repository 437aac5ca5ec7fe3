'use client';
import { setField } from '../../../core/design';
import type { Switch } from '../../../core/design';
import { groupsOf } from '../../chart/groups';
import { Field } from '../../controls/Field';
import { useBench, useSession } from '../../session/context';

const MIXED = 'mixed';

/** The one value that all have; null where they differ. */
const common = <T,>(values: readonly T[]): T | null => (new Set(values).size === 1 ? values[0]! : null);

/** The building or other group that switches are drawn in: given by hand, else the one that is found. */
export function GroupField({ switches }: { switches: readonly Switch[] }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const groups = groupsOf(design);
  const found = common(switches.map((s) => groups[design.switches.indexOf(s)] ?? ''));
  const own = common(switches.map((s) => s.group ?? ''));
  const set = (text: string) => {
    const group = text.trim() || null;
    const changed = switches.filter((s) => (s.group ?? null) !== group);
    if (changed.length === 0) return true;
    const whom = changed.length === 1 ? changed[0]!.name : `${changed.length} switches`;
    return edit(
      group ? `Group of ${whom}: ${group}` : `Group of ${whom} as found`,
      changed.map((s) => setField('switch', s.id, 'group', group)),
    );
  };
  const usual = found === null || own === null ? MIXED : found === '' ? 'none found' : `${found}, as found`;
  return <Field label="Group" value={own ?? ''} width={170} usual={usual} onSet={set} />;
}
