/** What a bundle has left when it loses a member. */
import type { Bundle, Design } from '../design';
import { minimumAt, rateAt, verdictOf } from '../network';

/** Members that carry, and those that wait to. */
export const usableMembers = (design: Design, { id }: Bundle): string[] =>
  (verdictOf(design, id)?.members ?? []).flatMap((m) =>
    m.state === 'active' || m.state === 'standby' ? [m.port] : [],
  );

/** Whether a bundle that is up stays up with any one member less, by its own minimum. */
export function canLoseOne(design: Design, bundle: Bundle): boolean {
  const usable = usableMembers(design, bundle);
  const left = usable.length - 1;
  return left >= 1 && left >= minimumAt(bundle, rateAt(design, usable[0]!));
}
