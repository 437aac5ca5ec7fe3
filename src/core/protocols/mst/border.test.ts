/** Ports to another region, where an instance goes with the CIST (802.1Q-2018 13.29, 13.37). */
import { FLAG, flagsIn } from '../frames';
import { at, both, regional, running, seconds, tell, word } from '../../../../tests/support/bridges';

const open = (role: number) => role | FLAG.learning | FLAG.forwarding;
const DESIGNATED = 0x0c;
const ROOT = 0x08;

test('a worse bridge outside that forwards disputes the port in every tree', () => {
  const b = running(regional(2, 'alpha'), both(1));
  tell(b, 1, word({ flags: ROOT | FLAG.agreement, rootPriority: 32768, rootMac: 2, rootPathCost: 9 }));
  const states = () => [0, 1].map((tree) => at(b, 1, tree).forwarding);
  expect(states()).toEqual([true, true]);
  // It hears nothing of this bridge any more, and takes itself for the root.
  tell(b, 1, word({ flags: open(DESIGNATED), rootPriority: 61440, rootMac: 9, bridgePriority: 61440 }));
  expect(states()).toEqual([false, false]);
});

test('a master port that was disputed before it was one forwards all the same', () => {
  const b = running(regional(2, 'alpha'), both(1));
  tell(b, 1, word({ flags: open(DESIGNATED), rootPriority: 61440, rootMac: 9, bridgePriority: 61440 }));
  expect(at(b, 1, 1).disputed).toBe(true);
  tell(b, 1, word({ flags: DESIGNATED | FLAG.proposal }));
  expect([at(b, 1, 0).role, at(b, 1, 1).role]).toEqual(['Root', 'Master']);
  seconds(b, 1);
  expect([at(b, 1, 0).forwarding, at(b, 1, 1).forwarding, at(b, 1, 1).disputed]).toEqual([true, true, false]);
});

test('what the CIST stops at the border stops in the instance too', () => {
  const b = running(regional(2, 'alpha'), both(1), both(2));
  tell(b, 1, word({ flags: DESIGNATED | FLAG.proposal }));
  tell(b, 2, word({ flags: ROOT | FLAG.agreement, rootPathCost: 40_000, bridgeMac: 70 }));
  const states = () => [0, 1].map((tree) => at(b, 2, tree).forwarding);
  expect(states()).toEqual([true, true]);
  // The way to the root becomes worse than what the neighbour agreed to.
  tell(b, 1, word({ flags: DESIGNATED | FLAG.proposal, rootPathCost: 90_000 }));
  expect(states()).toEqual([false, false]);
});

test('when another bridge leads the region to the root, ways inside it are agreed on again in every instance', () => {
  const b = running(regional(2, 'alpha', 4096), both(1), both(2));
  const neighbour = (cist: number, instance: number, externalCost: number) => {
    const { configuration } = regional(9, 'alpha');
    return word({
      type: 'mst',
      flags: cist,
      rootPriority: 0,
      rootMac: 1,
      rootPathCost: externalCost,
      bridgePriority: 32768,
      mst: {
        configuration: configuration!,
        internalCost: 0,
        bridgePriority: 32768,
        bridgeMac: 9,
        hops: 20,
        instances: [
          {
            flags: instance,
            regionalPriority: 4097,
            regionalMac: 2,
            internalCost: 20_000,
            bridgePriority: 0x80,
            portPriority: 0x80,
            hops: 19,
          },
        ],
      },
    });
  };
  // Twice, since the first time the neighbour becomes the one that leads.
  for (let i = 0; i < 2; i++) tell(b, 1, neighbour(DESIGNATED | FLAG.proposal, ROOT | FLAG.agreement, 10));
  const inside = at(b, 1, 1);
  expect([at(b, 1).role, inside.role, inside.forwarding, inside.agreed]).toEqual(['Root', 'Designated', true, true]);
  tell(
    b,
    2,
    word({ flags: DESIGNATED, rootPriority: 0, rootMac: 1, rootPathCost: 0, bridgePriority: 0, bridgeMac: 1 }),
  );
  tell(
    b,
    2,
    word({ flags: DESIGNATED, rootPriority: 0, rootMac: 0, rootPathCost: 0, bridgePriority: 0, bridgeMac: 0 }),
  );
  expect([at(b, 2, 1).role, inside.role, inside.forwarding, inside.agreed]).toEqual([
    'Master',
    'Designated',
    false,
    false,
  ]);
});

test('a designated port of an instance agrees once all others are in sync', () => {
  const b = running(regional(2, 'alpha'), both(1), both(2));
  tell(b, 2, word({ flags: ROOT | FLAG.agreement, rootPriority: 32768, rootMac: 2, rootPathCost: 20_000 }));
  seconds(b, 2);
  const hello = b.effects.findLast((e) => e.kind === 'send' && e.port === 1);
  expect(hello?.kind === 'send' && (flagsIn(hello.octets, 1) & FLAG.agreement) > 0).toBe(true);
});
