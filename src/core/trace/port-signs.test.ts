import { asMeant } from '../../demo/brackwater';
import type { Script } from '../design';
import { rehearse } from '../simulation';
import { portSigns } from './port-signs';

const EDGE = 'ticket-hall:10';
const script: Script = {
  id: 's',
  name: 's',
  until: 30,
  probes: [],
  events: [
    { id: 'in', kind: 'intruder', at: 5, port: EDGE, priority: 0 },
    { id: 'out', kind: 'unplug', at: 20, port: EDGE },
  ],
};

test('a rogue switch stands at its port, with the guard that acts on it and the time left', () => {
  const design = asMeant();
  const trace = rehearse(design, script);
  const at = (seconds: number) => portSigns(design, script, trace, seconds * 1e6);
  expect(at(4)).toEqual([]);
  expect(at(15.001)).toEqual([
    { port: EDGE, kind: 'plugged', words: '10: rogue switch, priority 0' },
    { port: EDGE, kind: 'guard', words: '10: shut by BPDU guard, 20.0 s left' },
  ]);
  // It is taken out; the port waits on.
  expect(at(25.001).map((s) => s.words)).toEqual(['10: shut by BPDU guard, 10.0 s left']);
});

test('a port that root guard holds, with the hub or switch behind it', () => {
  const design = asMeant();
  const held = {
    ...design,
    ports: design.ports.map(({ bpduGuard: _, ...p }) => (p.id === EDGE ? { ...p, rootGuard: true, edge: false } : p)),
  };
  const trace = rehearse(held, script);
  expect(portSigns(held, script, trace, 12e6).map((s) => s.words)).toEqual([
    '10: rogue switch, priority 0',
    '10: held by a guard',
  ]);
});
