import fc from 'fast-check';
import { applyEdits } from '../design';
import { checkNeighbours } from '../editing';
import type { Reception } from '../editing';
import { asMeant } from '../../demo/brackwater';
import { asBuilt } from './as-built';
import { keepReading, packObserved, unpackObserved } from './kept';
import { observationsOf, receptionsOf, withReceptions } from './receptions';

const SOURCE = { kind: 'lldp', name: 'test', at: null } as const;
const heard = (from: string, fromPort: string, to: string, toPort: string): Reception => ({
  from,
  fromPort,
  to,
  toPort,
});

describe('what is read of neighbours', () => {
  it('is reported again as it was reported, link by link', () => {
    const told = [heard('quay', '1', 'dock', '4'), heard('dock', '4', 'quay', '1'), heard('dock', '5', 'shed', '2')];
    const network = withReceptions(null, told, SOURCE);
    expect(receptionsOf(network)).toEqual(expect.arrayContaining(told));
    expect(receptionsOf(network)).toHaveLength(3);
  });

  it('says of a link that one end does not report that it does not', () => {
    const network = withReceptions(
      null,
      [heard('quay', '1', 'dock', '4'), heard('dock', '5', 'shed', '2'), heard('shed', '2', 'dock', '5')],
      SOURCE,
    );
    expect(network.links.find((l) => l.a.port === '4' || l.b.port === '4')?.silent).toBe('dock');
    expect(receptionsOf(network).filter((r) => r.from === 'dock')).toEqual([
      expect.objectContaining({ fromPort: '5' }),
    ]);
  });

  it('believes a switch that tells again, and keeps what others told and all that is not of neighbours', () => {
    const meant = asMeant();
    const whole = asBuilt(observationsOf([heard('gate', '1', 'quay', '1')], SOURCE), 'x').network;
    const before = {
      ...whole,
      trees: [{ id: 'single', root: 'gate', ports: [] }],
      switches: whole.switches.map((s) => ({ ...s, priority: 4096 })),
    };
    const after = withReceptions(before, [heard('gate', '2', 'quay', '1'), heard('mill', '1', 'gate', '9')], SOURCE);
    expect(after.trees).toEqual(before.trees);
    expect(after.switches.find((s) => s.name === 'gate')?.priority).toBe(4096);
    expect(after.switches.map((s) => s.name)).toContain('mill');
    expect(receptionsOf(after)).toEqual([
      expect.objectContaining({ from: 'gate', fromPort: '2', to: 'quay', toPort: '1' }),
      expect.objectContaining({ from: 'mill', fromPort: '1', to: 'gate', toPort: '9' }),
    ]);
    expect(checkNeighbours(meant, receptionsOf(after)).length).toBeGreaterThan(0);
  });
});

describe('a reading that a design keeps', () => {
  it('is packed and unpacked without loss, whatever its names are', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.string({ minLength: 1 }), fc.string({ unit: 'grapheme', minLength: 1 })), {
          maxLength: 40,
        }),
        async (pairs) => {
          const { network } = asBuilt(
            observationsOf(
              pairs.map(([a, b]) => heard(a, '1', b, '2')),
              SOURCE,
            ),
            'x',
          );
          expect(await unpackObserved(await packObserved(network))).toEqual(network);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('is one, in place of the one before', async () => {
    const packed = await packObserved(withReceptions(null, [heard('a', '1', 'b', '1')], SOURCE));
    let design = asMeant();
    for (const id of ['first', 'second']) {
      const applied = applyEdits(design, keepReading(design, { id, at: '2026-03-01T09:30:00.000Z', packed }));
      if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
      design = applied.design;
    }
    expect(design.readings.map((r) => r.id)).toEqual(['second']);
    expect(keepReading(asMeant(), null)).toEqual([]);
  });

  it('that is damaged is none', async () => {
    const packed = await packObserved(withReceptions(null, [heard('a', '1', 'b', '1')], SOURCE));
    expect(await unpackObserved(packed.slice(0, 40))).toBeNull();
    expect(await unpackObserved(btoa('{"switches":[]}'))).toBeNull();
    expect(await unpackObserved('%')).toBeNull();
  });
});
