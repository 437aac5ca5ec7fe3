import { FLAG } from '../frames';
import { setPortsEnabled } from './bridge';
import {
  at,
  both,
  heardAs,
  port,
  regional,
  running,
  seconds,
  settings,
  tell,
  word,
} from '../../../../tests/support/bridges';

const bridge = () => running(settings(2), port(1), port(2));

describe('what a port makes of a message', () => {
  test('a better vector is superior, and the same again is repeated', () => {
    const b = bridge();
    tell(b, 1, word());
    tell(b, 1, word());
    expect(heardAs(b)).toEqual(['SuperiorDesignated', 'RepeatedDesignated']);
    expect([at(b, 1).infoIs, at(b, 1).role, at(b, 2).role]).toEqual(['Received', 'Root', 'Designated']);
  });
  test('a worse one from the port that was believed is superior too', () => {
    const b = bridge();
    tell(b, 1, word());
    tell(b, 1, word({ rootPathCost: 50_000 }));
    expect(heardAs(b)).toEqual(['SuperiorDesignated', 'SuperiorDesignated']);
    expect(at(b, 1).portPriority.externalCost).toBe(50_000);
  });
  test('a worse one from another port is inferior', () => {
    const b = bridge();
    tell(b, 1, word());
    b.effects.length = 0;
    tell(b, 1, word({ bridgeMac: 12, rootPathCost: 1 }));
    expect(heardAs(b)).toEqual(['InferiorDesignated']);
    expect(at(b, 1).portPriority.bridgeMac).toBe(9);
  });
  test('the same vector with other times is taken over', () => {
    const b = bridge();
    tell(b, 1, word());
    tell(b, 1, word({ forwardDelay: 10 * 256 }));
    expect(heardAs(b)).toEqual(['SuperiorDesignated', 'SuperiorDesignated']);
    expect(at(b, 1).designatedTimes.forwardDelay).toBe(10);
  });
  test('times count whole seconds, and a hello time of less than one is one', () => {
    const b = bridge();
    tell(b, 1, word({ forwardDelay: 10 * 256 + 200, helloTime: 100 }));
    expect([at(b, 1).portTimes.forwardDelay, at(b, 1).portTimes.helloTime]).toEqual([10, 1]);
  });
  test('a root port of the neighbour agrees or does not', () => {
    const b = bridge();
    tell(b, 1, word({ flags: 0x08, rootMac: 2, rootPriority: 32768, bridgeMac: 9, rootPathCost: 20_000 }));
    expect([heardAs(b), at(b, 1).agreed]).toEqual([['InferiorRootAlternate'], false]);
    tell(b, 1, word({ flags: 0x08 | FLAG.agreement, rootMac: 2, rootPriority: 32768, rootPathCost: 20_000 }));
    expect([at(b, 1).agreed, at(b, 1).proposing, at(b, 1).forwarding]).toEqual([true, false, true]);
  });
  test('a root port of the neighbour that knows better says nothing', () => {
    const b = bridge();
    tell(b, 1, word({ flags: 0x08 | FLAG.agreement }));
    expect([heardAs(b), at(b, 1).infoIs]).toEqual([['Other'], 'Mine']);
  });
  test('its own message, come back, says nothing', () => {
    const b = bridge();
    tell(b, 1, word({ rootMac: 2, rootPriority: 32768, bridgeMac: 2, bridgePriority: 32768 }));
    expect([heardAs(b), at(b, 1).infoIs]).toEqual([['Other'], 'Mine']);
  });
  test('an agreement does not count on a shared link', () => {
    const b = running(settings(2), port(1, { pointToPoint: false }));
    tell(b, 1, word({ flags: 0x08 | FLAG.agreement, rootMac: 2, rootPriority: 32768, rootPathCost: 20_000 }));
    expect(at(b, 1).agreed).toBe(false);
  });
});

describe('a neighbour that is worse and thinks itself designated', () => {
  const worse = (flags: number) =>
    word({ flags, rootPriority: 61440, rootMac: 30, bridgePriority: 61440, bridgeMac: 30 });
  test('is no matter while it discards', () => {
    const b = bridge();
    tell(b, 1, worse(0x0c | FLAG.proposal));
    expect([heardAs(b), at(b, 1).disputed]).toEqual([['InferiorDesignated'], false]);
  });
  test('stops the port when it learns or forwards: it does not receive', () => {
    const b = bridge();
    seconds(b, 40);
    expect(at(b, 1).forwarding).toBe(true);
    tell(b, 1, worse(0x0c | FLAG.learning | FLAG.forwarding));
    expect([at(b, 1).role, at(b, 1).forwarding, at(b, 1).learning]).toEqual(['Designated', false, false]);
  });
});

describe('how long it is believed', () => {
  test('three hellos of the sender', () => {
    const b = bridge();
    tell(b, 1, word({ helloTime: 3 * 256 }));
    seconds(b, 8);
    expect(at(b, 1).infoIs).toBe('Received');
    seconds(b, 1);
    expect([at(b, 1).infoIs, at(b, 1).role]).toEqual(['Mine', 'Designated']);
  });
  test('each repetition starts them again', () => {
    const b = bridge();
    for (let s = 0; s < 30; s++) {
      tell(b, 1, word());
      seconds(b, 1);
    }
    expect(at(b, 1).role).toBe('Root');
  });
  test('a message that is as old as it may be is not believed at all', () => {
    const b = bridge();
    tell(b, 1, word({ messageAge: 20 * 256 }));
    expect([at(b, 1).infoIs, b.trees[0]!.rootPort]).toEqual(['Mine', null]);
    tell(b, 1, word({ messageAge: 19 * 256 }));
    expect(at(b, 1).role).toBe('Root');
  });
  test.each([
    [19.25, 'Root', 20],
    [19.5, 'Designated', 0],
    [3.75, 'Root', 5],
  ])('an age of %s s counts a second more, to the nearest second', (age, role, onward) => {
    const b = bridge();
    tell(b, 1, word({ messageAge: age * 256 }));
    expect([at(b, 1).role, at(b, 2).designatedTimes.messageAge]).toEqual([role, onward]);
  });
  test('a port that goes down forgets what it heard', () => {
    const b = bridge();
    tell(b, 1, word());
    setPortsEnabled(b, [1], false);
    expect([at(b, 1).infoIs, b.trees[0]!.rootPort]).toEqual(['Disabled', null]);
    tell(b, 2, word({ rootPathCost: 100_000 }));
    expect(at(b, 2).role).toBe('Root');
  });
});

describe('inside a region', () => {
  const mst = (hops: number, name = 'alpha') => {
    const sender = regional(9, name, 4096);
    return word({
      type: 'mst',
      mst: {
        configuration: sender.configuration!,
        internalCost: 0,
        bridgePriority: 4096,
        bridgeMac: 9,
        hops,
        instances: [
          {
            flags: 0x0c,
            regionalPriority: 4097,
            regionalMac: 9,
            internalCost: 0,
            bridgePriority: 0x10,
            portPriority: 0x80,
            hops,
          },
        ],
      },
    });
  };
  test('hops count instead of ages, in each instance by itself', () => {
    const b = running(regional(2, 'alpha'), both(1));
    tell(b, 1, mst(20));
    expect([at(b, 1, 0).role, at(b, 1, 1).role]).toEqual(['Root', 'Root']);
    expect([b.trees[0]!.rootTimes.hops, b.trees[1]!.rootTimes.hops]).toEqual([19, 19]);
    const last = running(regional(2, 'alpha'), both(1));
    tell(last, 1, mst(1));
    expect([last.trees[0]!.rootPort, last.trees[1]!.rootPort]).toEqual([null, null]);
  });
  test('the same vector from outside, where it came from inside before, is accepted again at its other cost', () => {
    const b = running(regional(2, 'alpha'), both(1));
    tell(b, 1, mst(20));
    expect([b.trees[0]!.rootPriority.externalCost, b.trees[0]!.rootPriority.internalCost]).toEqual([0, 20_000]);
    tell(b, 1, mst(20, 'beta'));
    expect([b.trees[0]!.rootPriority.externalCost, b.trees[0]!.rootPriority.internalCost]).toEqual([20_000, 0]);
    expect(at(b, 1, 1).role).toBe('Master');
  });
});
