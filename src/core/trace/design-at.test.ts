import fc from 'fast-check';
import { asMeant } from '@/demo/brackwater';
import { linkById, setField, switchById } from '../design';
import type { Script, ScriptEvent } from '../design';
import { advance, startRehearsal, traceOf } from '../simulation';
import { asItStands } from './design-at';

const script = (events: readonly object[]): Script => ({
  id: 's',
  name: 's',
  until: 30,
  events: events.map((e, i) => ({ id: `e${i}`, ...e })) as ScriptEvent[],
  probes: [],
});
/** What there is at 30 s by the run itself, and by what is read off its trace. */
function ended(events: readonly object[]) {
  const design = asMeant();
  const run = startRehearsal(design, script(events));
  advance(run, 30e6);
  const trace = traceOf(run, 30e6, 'end');
  return {
    design,
    script: run.script,
    trace,
    drawn: run.world.drawn,
    read: asItStands(design, run.script, trace, 30e6),
  };
}
const links = asMeant().links.filter((l) => 'port' in l.a && 'port' in l.b);
const [first, second] = links.map((l) => l.id);

test('before the first event it is the design itself', () => {
  const { design, script: s, trace } = ended([{ at: 5, kind: 'link-down', link: first }]);
  expect(asItStands(design, s, trace, 4_999_999)).toEqual({ design, extras: [] });
  expect(linkById(asItStands(design, s, trace, 5e6).design, first!)?.down).toBe(true);
});

test('a flapping link ends as its last turn leaves it, and is what it was in between', () => {
  const { design, script: s, trace, read } = ended([{ at: 5, kind: 'flap', link: first, times: 2, every: 2 }]);
  const dark = [5, 7, 9, 11].map((t) => linkById(asItStands(design, s, trace, t * 1e6).design, first!)?.down === true);
  expect(dark).toEqual([true, false, true, false]);
  expect(linkById(read.design, first!)?.down).toBeUndefined();
});

test('a root that is taken is the switch that was root', () => {
  const { read } = ended([{ at: 5, kind: 'root-off', vlan: 110 }]);
  expect(read.design.switches.filter((s) => s.off).map((s) => s.id)).toEqual(['core-east']);
});

test('what cannot be carried out leaves nothing behind, and what follows is carried out', () => {
  const { design, read, drawn } = ended([
    { at: 5, kind: 'set', label: 'cost', edits: [setField('link', 'no-such-link', 'down', true)] },
    { at: 6, kind: 'link-down', link: 'no-such-link' },
    { at: 7, kind: 'set', label: 'priority', edits: [setField('switch', 'gate', 'priority', 61440)] },
  ]);
  expect(switchById(read.design, 'gate')?.priority).toBe(61440);
  expect(read.design).toEqual(drawn);
  expect(read.design.links).toEqual(design.links);
});

test('events that no design can express are listed with it, as long as they last', () => {
  const port = asMeant().ports.find((p) => p.edge)!.id;
  const events = [
    { at: 1, kind: 'bpdu-loss', link: first, from: 'a' },
    { at: 2, kind: 'hub-loop', port },
    { at: 3, kind: 'link-down', link: second, end: 'a' },
    { at: 4, kind: 'tree-off', switch: 'gate' },
    { at: 10, kind: 'bpdu-heal', link: first },
    { at: 11, kind: 'unplug', port },
    { at: 12, kind: 'link-up', link: second },
  ];
  const { design, script: s, trace, read } = ended(events);
  const kinds = (at: number) => asItStands(design, s, trace, at * 1e6).extras.map((e) => e.kind);
  expect(kinds(5)).toEqual(['bpdu-loss', 'hub-loop', 'link-down', 'tree-off']);
  expect(kinds(11)).toEqual(['link-down', 'tree-off']);
  expect(read.extras.map((e) => e.kind)).toEqual(['tree-off']);
  expect(read.design).toEqual(design);
});

test('what is read off the trace is what the run has come to, after any events', () => {
  const at = fc.integer({ min: 1, max: 29_000 }).map((ms) => ms / 1000);
  const link = fc.constantFrom(...links.map((l) => l.id));
  const where = fc.constantFrom(...asMeant().switches.map((s) => s.id));
  const event = fc.oneof(
    fc.record({ at, kind: fc.constantFrom('link-down', 'link-up'), link }),
    fc.record({ at, kind: fc.constant('flap'), link, times: fc.integer({ min: 1, max: 3 }), every: fc.constant(0.5) }),
    fc.record({ at, kind: fc.constantFrom('switch-off', 'switch-on'), switch: where }),
    fc.record({ at, kind: fc.constant('root-off'), vlan: fc.constantFrom(110, 120, 199) }),
    fc.record({ at, where }).map(({ at: moment, where: id }) => ({
      at: moment,
      kind: 'set',
      label: 'priority',
      edits: [setField('switch', id, 'priority', 4096)],
    })),
  );
  fc.assert(
    fc.property(fc.array(event, { maxLength: 6 }), (events) => {
      const { drawn, read } = ended(events);
      expect(read.design).toEqual(drawn);
    }),
    { numRuns: 15 },
  );
});
