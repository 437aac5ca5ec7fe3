/** Failures in words and as a measure of harm. */
import { elementName, elementWords } from '../../core/review';
import type { Failure } from '../../core/review';
import type { Design } from '../../core/design';

/** Names a failure among all. */
export const failureKey = ({ elements }: Failure): string => elements.map((e) => `${e.kind} ${e.id}`).join(' + ');

/** `quay-b 8 – cold-store 1`; of a pair both. */
export const failureWords = (design: Design, { elements }: Failure): string =>
  elements
    .map((e) => elementWords(elementName(design, e)).replace(/^(link|member|bundle|switch|segment) /, ''))
    .join(' and ');

export const kindWords = ({ elements }: Failure): string =>
  elements.map((e) => (e.kind === 'group' ? 'risk group' : e.kind)).join(', ');

/** 0 to 5: nothing, a moment, a long outage, broken goals or overload, hosts parted, switches parted. */
export function harmOf({ separates, goalsBroken, overloaded, outage }: Failure): number {
  if (separates.switches.length > 0) return 5;
  if (separates.hosts.length > 0) return 4;
  if (goalsBroken.length + overloaded.length > 0) return 3;
  if (outage.kind === 'forward-delay' || outage.kind === 'hellos') return 2;
  return outage.kind === 'none' ? 0 : 1;
}
