/** Timers in force, and rules about scripts. */
import { TIMERS } from '../../standard';
import type { Fault } from '../fault';
import type { Rule, RuleEntry } from './rule';
import type { Design, Switch } from '../schema';
import { documentMessages as say } from '../../messages';

export interface TimersInForce {
  readonly helloTime: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
}

/** Timers of a switch in seconds, in use in its tree while it is root. */
export const timersOf = (s: Pick<Switch, 'helloTime' | 'maxAge' | 'forwardDelay'>): TimersInForce => ({
  helloTime: s.helloTime ?? TIMERS.helloTime.default,
  maxAge: s.maxAge ?? TIMERS.maxAge.default,
  forwardDelay: s.forwardDelay ?? TIMERS.forwardDelay.default,
});

/** Milliseconds within which the switches of a design begin to count their seconds, unless a script says otherwise. */
export const usualHelloSpread = ({ switches }: Design): number =>
  1000 * Math.max(TIMERS.helloTime.default, ...switches.map((s) => timersOf(s).helloTime));

/** Whether timers go together: 2 × (delay − 1) ≥ age ≥ 2 × (hello + 1) (802.1D-2004 17.14). */
export const timersFit = ({ helloTime, maxAge, forwardDelay }: TimersInForce): boolean =>
  2 * (forwardDelay - 1) >= maxAge && maxAge >= 2 * (helloTime + 1);

const events: Rule = ({ scripts }) =>
  scripts.flatMap((script, i) =>
    script.events.flatMap((event, j): Fault[] =>
      event.at <= script.until
        ? []
        : [
            {
              code: 'event-beyond',
              path: ['scripts', i, 'events', j, 'at'],
              sentence: say.eventBeyond(script.name, event.at, script.until),
            },
          ],
    ),
  );

export const rehearsalRules: readonly RuleEntry[] = [
  { after: ['script.*', 'script.events', 'script.until'], rule: events },
];
