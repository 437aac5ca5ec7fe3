/** What a failure does that it should not, as a goal that says so from now on. */
import { hostById } from '../design';
import type { AvailabilityGoal, Design } from '../design';
import { formatVlanRanges } from '../standard';
import { hostVlans } from './reach';
import type { Failure } from './sweep';

/** Longest outage that passes for a moment, in seconds. */
const A_MOMENT = 1;

/** The goal that this failure breaks today; null where it does no harm. */
export function goalOfFailure(
  design: Design,
  { separates, overloaded, outage }: Failure,
  id: string,
): AvailabilityGoal | null {
  if (separates.vlans.length > 0)
    return { id, type: 'stays-connected', among: 'switches', vlans: formatVlanRanges(separates.vlans) };
  if (separates.hosts.length > 0) {
    const of = hostVlans(design);
    const vlans = design.hosts.flatMap((h, i) => (separates.hosts.includes(h.id) ? (of[i] ?? []) : []));
    const own = separates.hosts.length === 1 ? hostById(design, separates.hosts[0]!) : undefined;
    const other = own && design.hosts.find((h, i) => h !== own && vlans.includes(of[i] ?? -1));
    const among = other ? ({ from: { host: own.id }, to: { host: other.id } } as const) : ('hosts' as const);
    return { id, type: 'stays-connected', among, vlans: formatVlanRanges([...new Set(vlans)]) || 'all' };
  }
  if (overloaded.length > 0) return { id, type: 'load-left', vlans: 'all', percent: 100 };
  if ((outage.seconds ?? 0) > A_MOMENT) return { id, type: 'outage', vlans: 'all', atMost: A_MOMENT };
  return null;
}
