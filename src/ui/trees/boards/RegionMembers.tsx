'use client';
import { useMemo, useState } from 'react';
import type { Design, Switch } from '../../../core/design';
import { mstConfigOf, mstSwitches } from '../../../core/network';
import { useSession } from '../../session/context';
import { BoundaryPorts } from './BoundaryPorts';
import { RegionComparison } from './RegionComparison';
import { RegionTable } from './RegionTable';

/** A switch with the configuration that most have, and one with another; undefined where there is none. */
function majority(design: Design, members: readonly Switch[]) {
  const keys = members.map((s) => mstConfigOf(design, s).key);
  const votes = new Map<string, number>();
  for (const key of keys) votes.set(key, (votes.get(key) ?? 0) + 1);
  const main = [...votes].sort((a, b) => b[1] - a[1])[0]?.[0];
  return { main: members[keys.indexOf(main ?? '')], other: members[keys.findIndex((k) => k !== main)] };
}

/** Which switch is in which region, why two are not in the same, and where regions meet. */
export function RegionMembers() {
  const solved = useSession((s) => s.solved);
  const { design } = solved.topology;
  const members = useMemo(() => mstSwitches(design), [design]);
  const [pair, setPair] = useState<readonly [string, string] | null>(null);
  const odd = useMemo(() => majority(design, members), [design, members]);
  const [first] = members;
  if (!first) return <p className="quiet">No switch runs MSTP.</p>;
  const ids = pair ?? [odd.main?.id ?? first.id, odd.other?.id ?? members[1]?.id ?? first.id];
  const [left, right] = ids.map((id) => members.find((s) => s.id === id) ?? first) as [Switch, Switch];
  return (
    <div className="members">
      <section aria-label="Comparison of two switches">
        <RegionComparison design={design} members={members} left={left} right={right} onPair={setPair} />
        <BoundaryPorts solved={solved} />
      </section>
      <RegionTable design={design} main={odd.main} onCompare={(id) => odd.main && setPair([odd.main.id, id])} />
    </div>
  );
}
