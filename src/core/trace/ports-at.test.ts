import { asMeant } from '../../demo/brackwater';
import { rehearse } from '../simulation';
import { SECOND } from '../standard';
import { portsAt } from './ports-at';

const design = { ...asMeant(), mode: 'stp' as const, vlans: asMeant().vlans };
const trace = rehearse(design, {
  id: 's',
  name: 's',
  until: 60,
  probes: [],
  events: [{ id: 'down', at: 5, kind: 'link-down', link: 'quay-a:3--ticket-hall:1' }],
});
const tree = trace.ports[0]!.tree;

test('every port is listed once, in the order of the switches, with what it is and until when', () => {
  const all = portsAt(design, trace, tree, 0);
  expect(new Set(all.map((p) => p.port)).size).toBe(all.length);
  expect(all[0]!.port).toMatch(/^core-east/);
  const learning = portsAt(design, trace, tree, 21 * SECOND, new Set(['ticket-hall']));
  expect(learning.every((p) => p.port.startsWith('ticket-hall'))).toBe(true);
  expect(learning.find((p) => p.port === 'ticket-hall:2')).toMatchObject({ role: 'root', state: 'learning' });
  const { since, until } = learning.find((p) => p.port === 'ticket-hall:2')!;
  expect(until! - since).toBe(15 * SECOND);
  expect(portsAt(design, trace, tree, until!).find((p) => p.port === 'ticket-hall:2')!.state).toBe('forwarding');
});

test('a port that changes no more has no end', () => {
  expect(portsAt(design, trace, tree, 60 * SECOND).every((p) => p.until === null)).toBe(true);
});
