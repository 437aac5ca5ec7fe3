import { asMeant } from '../../demo/brackwater';
import type { Design, Script } from '../design';
import { rehearse } from '../simulation';
import { standingOut } from './status';

const script = (events: readonly object[]): Script => ({
  id: 's',
  name: 's',
  until: 30,
  events: events.map((e, i) => ({ id: `e${i}`, ...e })) as never,
  probes: [],
});
const EDGE = 'ticket-hall:10';
const intruder = { kind: 'intruder', at: 5, port: EDGE, priority: 0 };
const guardedBy = (guard: object): Design => {
  const design = asMeant();
  return { ...design, ports: design.ports.map(({ bpduGuard: _, ...p }) => (p.id === EDGE ? { ...p, ...guard } : p)) };
};
const texts = (design: Design, events: readonly object[], at: number) =>
  standingOut(design, rehearse(design, script(events)), at * 1e6).map((s) => s.text);

describe('what stands out at a moment', () => {
  test('nothing, while nothing is wrong', () => {
    expect(texts(asMeant(), [intruder], 4)).toEqual([]);
  });
  test('a port that its BPDU guard shut, with the time left', () => {
    expect(texts(asMeant(), [intruder], 15.001)).toEqual([
      'ticket-hall 10 is shut down by BPDU guard: it received a BPDU; it recovers in 20.0 s, at 35.001 s.',
    ]);
  });
  test('without recovery it stays shut down until it is enabled by hand', () => {
    const design = asMeant();
    const patient = { ...design, switches: design.switches.map(({ guardRecovery: _, ...s }) => s) };
    expect(texts(patient, [intruder], 20)[0]).toMatch(/it stays shut down until it is enabled by hand\.$/);
  });
  test('a root guard, for as long as the claim lasts', () => {
    const design = guardedBy({ rootGuard: true, edge: false });
    expect(texts(design, [intruder], 12)).toEqual([
      'ticket-hall 10 is blocked by root guard while it receives superior BPDUs.',
    ]);
    const gone = [intruder, { kind: 'unplug', at: 10, port: EDGE }];
    expect(texts(design, gone, 25)).toEqual([]);
  });
  test('frames that loop, since when, and what that does', () => {
    const design = guardedBy({});
    const [text] = texts(design, [{ kind: 'hub-loop', at: 5, port: EDGE }], 7);
    expect(text).toMatch(/^Frames have looped in VLAN 110 for 2\.0 s, over ticket-hall 10\. One loop takes 5 µs/);
  });
  test('a loop of several trees over the same ports is one line', () => {
    const design = asMeant();
    const found = standingOut(
      design,
      rehearse(design, script([{ kind: 'tree-off', at: 5, switch: 'ticket-hall' }])),
      5.01e6,
    );
    expect(found.map((s) => /^Frames have looped in (.*?) for/.exec(s.text)?.[1])).toEqual([
      'VLANs 110, 120, 130',
      'VLANs 140, 150, 160, 199',
    ]);
  });
});
