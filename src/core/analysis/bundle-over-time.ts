/** A bundle over time: its cables are plugged in, one is lost and comes back, and each member joins when negotiation lets it. */
import { linkAt } from '../design';
import type { Bundle, Design, Script, ScriptEvent } from '../design';
import type { Trace } from '../trace';

/** Seconds at which cables are taken out and plugged in, one is lost, and comes back; long enough to settle in between. */
export const BUNDLE_TIMES = { out: 1, plugged: 2, lost: 14, back: 20, end: 34 } as const;

/** The script of it for all cables of an end; null where no member has a cable. */
export function bundleScript(design: Design, near: readonly Bundle[]): Script | null {
  const links = near.flatMap((b) => b.members.flatMap((m) => linkAt(design, m)?.id ?? []));
  const [first] = links;
  if (first === undefined) return null;
  const event = (kind: 'link-down' | 'link-up', link: string, at: number): ScriptEvent => ({
    id: `${kind} ${link} ${at}`,
    kind,
    link,
    at,
  });
  return {
    id: 'bundle-over-time',
    name: 'the bundle over time',
    until: BUNDLE_TIMES.end,
    probes: [],
    events: [
      ...links.map((l) => event('link-down', l, BUNDLE_TIMES.out)),
      ...links.map((l) => event('link-up', l, BUNDLE_TIMES.plugged)),
      event('link-down', first, BUNDLE_TIMES.lost),
      event('link-up', first, BUNDLE_TIMES.back),
    ],
  };
}

export interface MemberTime {
  readonly port: string;
  /** When it carried, in microseconds; the end of the run where it still does. */
  readonly carried: readonly (readonly [from: number, to: number])[];
}

/** When each member of some bundles carried in a run, in the order of the members. */
export function membersOverTime(bundles: readonly Bundle[], trace: Pick<Trace, 'happenings' | 'until'>): MemberTime[] {
  return bundles.flatMap((bundle) => {
    const turns = trace.happenings.filter((h) => h.kind === 'bundle' && h.bundle === bundle.id);
    return bundle.members.map((port) => {
      const carried: [number, number][] = [];
      let since: number | null = null;
      for (const turn of turns) {
        if (turn.kind !== 'bundle') continue;
        const carries = turn.members.includes(port);
        if (carries) since ??= Math.max(0, turn.at);
        else if (since !== null) {
          carried.push([since, turn.at]);
          since = null;
        }
      }
      if (since !== null) carried.push([since, trace.until]);
      return { port, carried };
    });
  });
}
