import { at, port, running, settings, tell, word } from '../../../../tests/support/bridges';
import { setPort, setPriorities } from './bridge';

const bridge = () => running(settings(20), port(1), port(2), port(3));
const roles = (b: ReturnType<typeof bridge>) => b.ports.map((p) => p.trees[0]!.role);

describe('of several ways to the root', () => {
  test('the cheaper one is taken, cost of the receiving port included', () => {
    const b = bridge();
    tell(b, 1, word({ rootPathCost: 10_000, bridgeMac: 11 }));
    tell(b, 2, word({ rootPathCost: 20_000, bridgeMac: 12 }));
    expect(roles(b)).toEqual(['Root', 'Alternate', 'Designated']);
    setPort(b, port(1, { externalCost: 40_000 }));
    expect(roles(b)).toEqual(['Alternate', 'Root', 'Designated']);
  });
  test('of equal cost the lower designated bridge decides', () => {
    const b = bridge();
    tell(b, 1, word({ rootPathCost: 10_000, bridgeMac: 12 }));
    tell(b, 2, word({ rootPathCost: 10_000, bridgeMac: 11 }));
    expect(roles(b)).toEqual(['Alternate', 'Root', 'Designated']);
  });
  test('by the same bridge its lower port decides', () => {
    const b = bridge();
    tell(b, 1, word({ port: 0x8002 }));
    tell(b, 2, word({ port: 0x8001 }));
    expect(roles(b)).toEqual(['Alternate', 'Root', 'Designated']);
  });
  test('over one LAN of the same designated port the own lower port identifier decides', () => {
    const b = bridge();
    tell(b, 1, word());
    tell(b, 2, word());
    expect(roles(b)).toEqual(['Root', 'Alternate', 'Designated']);
    setPort(b, port(2, { portId: [0x1002] }));
    expect(roles(b)).toEqual(['Alternate', 'Root', 'Designated']);
  });
  test('what names this bridge as designated leads nowhere: its port is a backup', () => {
    const b = bridge();
    tell(b, 3, word({ rootPathCost: 0, bridgeMac: 11 }));
    tell(b, 2, word({ rootPathCost: 20_000, bridgeMac: 20, bridgePriority: 32768, port: 0x8001 }));
    expect(roles(b)).toEqual(['Designated', 'Backup', 'Root']);
  });
});

test('a better bridge priority makes it root, and its ports designated', () => {
  const b = bridge();
  tell(b, 1, word());
  expect(b.trees[0]!.rootPort).not.toBeNull();
  setPriorities(b, [0]);
  expect([b.trees[0]!.rootPort, roles(b)]).toEqual([null, ['Designated', 'Designated', 'Designated']]);
});

describe('a port that may not be root port', () => {
  const guarded = () => running(settings(20), port(1, { restrictedRole: true }), port(2));
  test('is held back while it hears of a better root', () => {
    const b = guarded();
    tell(b, 1, word());
    expect([b.trees[0]!.rootPort, at(b, 1).role]).toEqual([null, 'Alternate']);
  });
  test('is designated as usual against a worse one', () => {
    const b = guarded();
    tell(b, 1, word({ rootPriority: 61440, rootMac: 30, bridgePriority: 61440, bridgeMac: 30 }));
    expect(at(b, 1).role).toBe('Designated');
  });
  test('does not keep others from being it', () => {
    const b = guarded();
    tell(b, 1, word());
    tell(b, 2, word({ rootPathCost: 200_000, bridgeMac: 11 }));
    expect(at(b, 2).role).toBe('Root');
  });
});

test('what it says of the root grows older by a second with each bridge, and dearer by its cost', () => {
  const b = bridge();
  tell(b, 1, word({ rootPathCost: 7, messageAge: 3 * 256 }));
  expect(at(b, 3).designatedPriority).toMatchObject({ rootMac: 9, externalCost: 20_007, bridgeMac: 20, port: 0x8003 });
  expect(at(b, 3).designatedTimes.messageAge).toBe(4);
});
