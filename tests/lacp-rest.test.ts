import fc from 'fast-check';
import { negotiate } from '@/core/network';
import type { MemberState, PlannedEnd } from '@/core/network';
import { goesAlone, has, runToRest, startEnd, withBit } from '@/core/protocols/lacp';
import type { EndSettings, LacpEnd, LacpPort } from '@/core/protocols/lacp';

const stateOf = (p: LacpPort): MemberState => {
  if (!p.portEnabled) return 'down';
  if (goesAlone(p)) return 'individual';
  if (p.mux === 'COLLECTING_DISTRIBUTING') return 'active';
  // Whoever would not aggregate does not wait either.
  const joins = has(p.actor, 'aggregation') && has(p.partner, 'aggregation');
  return p.selected === 'UNSELECTED' || !joins ? 'suspended' : 'standby';
};

const settingsOf = (end: PlannedEnd, timeout: 'short' | 'long', key: number): EndSettings => ({
  ...end,
  timeout,
  key,
  ports: end.members,
});

const cablesOf = (count: number, numbers: readonly [PlannedEnd, PlannedEnd]) =>
  Array.from({ length: count }, (_, c) => ({
    a: { end: 0, port: numbers[0].members[c]!.number },
    b: { end: 1, port: numbers[1].members[c]!.number },
  }));

const endOf = (system: number) =>
  fc.record({
    system: fc.constant(system),
    systemPriority: fc.constantFrom(32768, 32768, 1, 65535),
    activity: fc.constantFrom('active' as const, 'passive' as const),
    minActive: fc.constantFrom(1, 1, 1, 2, 4),
    minRate: fc.constantFrom(0, 0, 0, 2000, 3500),
    returnDelay: fc.constantFrom(0, 0, 5_000_000),
    keepsWorking: fc.constant(false),
    maxActive: fc.constantFrom(8, 8, 1, 2, 3),
    individual: fc.boolean(),
    priorities: fc.array(fc.constantFrom(32768, 32768, 1, 60000), { minLength: 10, maxLength: 10 }),
    numbers: fc.uniqueArray(fc.integer({ min: 1, max: 60 }), { minLength: 10, maxLength: 10 }),
    timeout: fc.constantFrom('short' as const, 'long' as const),
    key: fc.integer({ min: 1, max: 100 }),
  });
const cable = fc.record({
  speed: fc.constantFrom(1000, 1000, 1000, 10000),
  half: fc.integer({ min: 0, max: 8 }).map((n) => n === 0),
  up: fc.integer({ min: 0, max: 6 }).map((n) => n > 0),
});

const stale = (n: number) => ({
  systemPriority: n % 7,
  system: n * 31,
  key: n % 5,
  portPriority: n % 11,
  port: n % 13,
  state: n % 256,
});

/** An end in the middle of something else: ports that have heard others, or wait, or were carrying. */
function disturbed(end: LacpEnd, salt: readonly number[]): LacpEnd {
  const receive = ['INITIALIZE', 'EXPIRED', 'DEFAULTED', 'CURRENT', 'PORT_DISABLED'] as const;
  const mux = ['DETACHED', 'WAITING', 'ATTACHED', 'COLLECTING_DISTRIBUTING'] as const;
  const ports = end.ports.map((p, i): LacpPort => {
    const n = salt[i % salt.length]!;
    return {
      ...p,
      receive: receive[n % 5]!,
      mux: mux[(n >> 3) % 4]!,
      // What it says of itself goes with where it is.
      actor: { ...p.actor, state: p.actor.state | [0, 0, 0x08, 0x38][(n >> 3) % 4]! },
      selected: (['UNSELECTED', 'SELECTED', 'STANDBY'] as const)[(n >> 5) % 3]!,
      // A defaulted port has no partner, and counts none as in sync.
      partner: n % 5 === 2 ? withBit(p.partnerAdmin, 'synchronization', true) : stale(n),
      timers: { ...p.timers, currentWhile: (n % 80) * 1_000_000, waitWhile: (n % 3) * 1_000_000 },
    };
  });
  return { ...end, ports };
}

describe('the machines run to rest and agree with the closed form', () => {
  test('from a fresh start and from any other, for 2 to 10 members and all settings', () => {
    fc.assert(
      fc.property(
        endOf(1),
        endOf(2),
        fc.array(cable, { minLength: 2, maxLength: 10 }),
        fc.option(fc.array(fc.nat(100000), { minLength: 1, maxLength: 10 })),
        (left, right, cables, salt) => {
          const plan = (end: typeof left): PlannedEnd => ({
            ...end,
            members: cables.map((c, i) => ({ number: end.numbers[i]!, priority: end.priorities[i]!, ...c })),
          });
          const [a, b] = [plan(left), plan(right)];
          const starts = [
            startEnd(settingsOf(a, left.timeout, left.key)),
            startEnd(settingsOf(b, right.timeout, right.key)),
          ].map((end) => (salt ? disturbed(end, salt) : end));
          const rest = runToRest(starts, cablesOf(cables.length, [a, b]));
          expect(rest.map((end) => end.ports.map(stateOf))).toEqual(negotiate(a, b));
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('outcomes written down by hand from the standard', () => {
  const end = (system: number, more: Partial<PlannedEnd> = {}, count = 2): PlannedEnd => ({
    system,
    systemPriority: 32768,
    activity: 'active',
    minActive: 1,
    minRate: 0,
    maxActive: 8,
    individual: true,
    returnDelay: 0,
    keepsWorking: false,
    key: 1,
    members: Array.from({ length: count }, (_, i) => ({
      number: i + 1,
      priority: 32768,
      speed: 1000,
      half: false,
      up: true,
    })),
    ...more,
  });
  const member = (more: object, i: number) => ({
    number: i + 1,
    priority: 32768,
    speed: 1000,
    half: false,
    up: true,
    ...more,
  });
  const cases: [string, PlannedEnd, PlannedEnd, MemberState[]][] = [
    ['both active: all join', end(1), end(2), ['active', 'active']],
    ['active and passive: all join', end(1), end(2, { activity: 'passive' }), ['active', 'active']],
    [
      'both passive: no one starts, and the members are individual',
      end(1, { activity: 'passive' }),
      end(2, { activity: 'passive' }),
      ['individual', 'individual'],
    ],
    [
      'both passive, and alone is not allowed: nothing passes',
      end(1, { activity: 'passive', individual: false }),
      end(2, { activity: 'passive', individual: false }),
      ['suspended', 'suspended'],
    ],
    [
      'nine members: the ninth waits',
      end(1, {}, 9),
      end(2, {}, 9),
      [...Array<MemberState>(8).fill('active'), 'standby'],
    ],
    ['the lower maximum of both holds', end(1, {}, 3), end(2, { maxActive: 2 }, 3), ['active', 'active', 'standby']],
    [
      'the better system’s port priorities decide who waits',
      end(1, { maxActive: 1, members: [member({}, 0), member({ priority: 1 }, 1)] }),
      end(2, { members: [member({ priority: 0 }, 0), member({}, 1)] }),
      ['standby', 'active'],
    ],
    [
      'a better system priority makes the other end decide',
      end(1, { maxActive: 1, members: [member({}, 0), member({ priority: 1 }, 1)] }),
      end(2, { systemPriority: 1, members: [member({ priority: 0 }, 0), member({}, 1)] }),
      ['active', 'standby'],
    ],
    [
      'a member of another speed stays out',
      end(1, { members: [member({}, 0), member({ speed: 100 }, 1), member({}, 2)] }),
      end(2, { members: [member({}, 0), member({ speed: 100 }, 1), member({}, 2)] }),
      ['active', 'suspended', 'active'],
    ],
    ['fewer than the minimum: none is active', end(1, { minActive: 3 }), end(2), ['standby', 'standby']],
    [
      'a link that is down leaves the others',
      end(1, { members: [member({ up: false }, 0), member({}, 1)] }),
      end(2, { members: [member({ up: false }, 0), member({}, 1)] }),
      ['down', 'active'],
    ],
  ];
  test.each(cases)('%s', (_, a, b, expected) => {
    expect(negotiate(a, b)).toEqual([expected, expected]);
    const rest = runToRest(
      [startEnd(settingsOf(a, 'long', 1)), startEnd(settingsOf(b, 'short', 9))],
      cablesOf(expected.length, [a, b]),
    );
    expect(rest.map((e) => e.ports.map(stateOf))).toEqual([expected, expected]);
  });
});
