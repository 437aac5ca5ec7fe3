/** Two or more ends that exchange frames over cables until nothing but the periodic exchange is left. */
import { hear, nextTimer, tick } from './system';
import type { LacpEnd, Moved } from './system';

/** A cable between two ports, told by the index of the end and the port number. */
export interface LacpCable {
  readonly a: { readonly end: number; readonly port: number };
  readonly b: { readonly end: number; readonly port: number };
}

const MOST_FRAMES = 20_000;

/** What a port has come to, without its timers. */
const standing = (ends: readonly LacpEnd[]): string =>
  JSON.stringify(
    ends.map((e) => e.ports.map((p) => [p.receive, p.mux, p.selected, p.actor.state, p.partner, p.actorChurn])),
  );

/** Runs the ends from `now` until they have stood still for longer than any timer; the ends as they are then. */
export function runToRest(start: readonly LacpEnd[], cables: readonly LacpCable[], now = 0): readonly LacpEnd[] {
  const ends = [...start];
  const queue: { end: number; port: number; octets: Uint8Array }[] = [];
  const far = new Map(
    cables.flatMap(({ a, b }) => [[`${a.end} ${a.port}`, b] as const, [`${b.end} ${b.port}`, a] as const]),
  );
  const take = (index: number, moved: Moved) => {
    ends[index] = moved.end;
    for (const { port, octets } of moved.sent) {
      const to = far.get(`${index} ${port}`);
      if (to) queue.push({ ...to, octets });
    }
  };
  let frames = 0;
  const deliver = (at: number) => {
    for (let frame = queue.shift(); frame; frame = queue.shift()) {
      if (++frames > MOST_FRAMES) throw new Error('runToRest: the exchange does not come to rest');
      take(frame.end, hear(ends[frame.end]!, frame.port, frame.octets, at));
    }
  };
  let at = now;
  let since = at;
  let before = '';
  // Nothing of LACP waits longer than three slow periods.
  const QUIET = 200_000_000;
  while (at - since <= QUIET) {
    ends.forEach((end, i) => take(i, tick(end, at)));
    deliver(at);
    const after = standing(ends);
    if (after !== before) since = at;
    before = after;
    const timers = ends.flatMap((e) => nextTimer(e, at) ?? []);
    if (timers.length === 0) break;
    at = Math.min(...timers);
  }
  return ends;
}
