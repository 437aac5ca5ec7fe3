import { emptyDesign } from '@/core/design';
import type { Design } from '@/core/design';

/** A design with at least one element of every kind, small enough to be read thousands of times. */
export function smallDesign(): Design {
  const port = (s: string, n: number) => ({ id: `${s}:${n}`, switch: s, name: `e${n}`, number: n, speed: 1000 });
  const design: Design = {
    ...emptyDesign('small'),
    vlans: [
      { id: 'v1', number: 1 },
      { id: 'v10', number: 10, name: 'crew' },
    ],
    switches: [
      {
        id: 'a',
        name: 'a',
        mac: '00:00:5e:00:53:01',
        priority: 4096,
        vlanPriority: { '10': 8192 },
        x: 0,
        y: 0,
        region: 'r',
      },
      { id: 'b', name: 'b', mac: '00:00:5e:00:53:02', tier: 'access', x: 200, y: 0 },
    ],
    ports: [
      port('a', 1),
      port('a', 2),
      port('a', 3),
      port('b', 1),
      port('b', 2),
      { ...port('b', 3), vlans: '10', native: 10 },
      port('a', 4),
      port('b', 4),
    ],
    links: [
      { id: 'l1', a: { port: 'a:1' }, b: { port: 'b:1' } },
      { id: 'l2', a: { port: 'a:2' }, b: { port: 'b:2' } },
      { id: 'l3', a: { port: 'b:3' }, b: { host: 'h' } },
      { id: 'l4', a: { port: 'a:4' }, b: { port: 'b:4' } },
    ],
    segments: [{ id: 'g', name: 'hub', ports: ['a:3'] }],
    bundles: [
      { id: 'ba', switch: 'a', name: 'lag1', number: 100, members: ['a:1'], kind: 'lacp', shared: 7 },
      { id: 'bb', switch: 'b', name: 'lag1', number: 100, members: ['b:1'], kind: 'lacp' },
    ],
    hosts: [{ id: 'h', name: 'desk', vlan: 10 }],
    regions: [{ id: 'r', name: 'quay', revision: 1, map: { '1': '10' } }],
    pairs: [{ id: 'p', domain: 3, switches: ['a', 'b'], peer: ['l2'], keepalive: 'l4' }],
    scripts: [{ id: 's', name: 'cut', until: 30, events: [{ id: 'e', kind: 'link-down', at: 5, link: 'l1' }] }],
    goals: [{ id: 'goal', type: 'root', vlans: '10', switch: 'a', next: 'b' }],
    demands: [{ id: 'd', vlan: 10, from: { host: 'h' }, to: { switch: 'a' }, load: 10 }],
    risks: [{ id: 'k', name: 'duct', links: ['l2'], switches: ['b'] }],
    cableCosts: [{ id: 'cc', from: { switch: 'a' }, to: { tier: 'access' }, cost: 3 }],
    workplaces: [{ id: 'w', at: 'a', vlan: 1 }],
    readings: [{ id: 'y', at: '2026-03-01T09:30:00.000Z', packed: 'H4sIAAAAAAAAA6tWKs8vyknJSVWyio6tBQA=' }],
    notes: [{ id: 'n', text: 'Key with the porter', layer: 'access', about: ['a'], x: 20, y: 40 }],
    accepted: [{ id: 'c', code: 'bundle-slow', subjects: ['bundle ba'], said: 'It is slow.', reason: 'as agreed' }],
  };
  return design;
}
