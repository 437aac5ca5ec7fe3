/** The frames of a rehearsal: kept, decoded, written to a file. */
import { asMeant } from '../../demo/brackwater';
import { fieldsOf, framesOf, pcapng } from '../trace';
import { runOf } from '../../../tests/support/rehearsals';

const flap = { kind: 'flap', at: 4, link: 'quay-a:3--ticket-hall:1', times: 1, every: 2 };
const trace = runOf(asMeant(), 8, [flap], true);

test('are distinguished, and decode field by field with what the receiver did', () => {
  const frames = [...framesOf(trace.frames)];
  const marks = new Set(frames.map((f) => f.mark));
  expect([...marks].sort()).toEqual(['agreement', 'change', 'hello', 'lacp', 'proposal']);
  const hello = frames.find((f) => f.vlan === 110 && f.mark === 'hello' && f.heard.length > 0)!;
  const fields = Object.fromEntries(fieldsOf(hello.octets).map((f) => [f.name, f.value]));
  expect(fields).toMatchObject({
    VLAN: '110',
    BPDU: 'rapid',
    root: '4096 + 110 · 00:00:5e:00:53:21',
    'hello time': '2 s',
  });
  expect(hello.heard[0]!.info).toBe('RepeatedDesignated');
});
test('go into a file with one interface a port', () => {
  const of = (f: { from: string }) => f.from.startsWith('quay-a:');
  const meant = [...framesOf(trace.frames)].filter(of);
  const octets = pcapng(trace.frames, {
    names: (p) => p,
    wanted: (from) => of({ from }),
    alike: () => [],
    of: 'every-vlan',
  });
  const view = new DataView(octets.buffer);
  const types: number[] = [];
  for (let at = 0; at < octets.length; at += view.getUint32(at + 4, true)) types.push(view.getUint32(at, true));
  expect(types[0]).toBe(0x0a0d0d0a);
  expect(types.filter((t) => t === 1)).toHaveLength(new Set(meant.map((f) => f.from)).size);
  expect(types.filter((t) => t === 6)).toHaveLength(meant.length);
});
