import type { signMessages, storyMessages } from '../story';
import type { Samples } from './samples';

const pair = 'ticket-desk to ferry-server in VLAN 110';
const effect = {
  around: 40,
  copies: 25_000,
  full: 1_488_095,
  rate: 1000,
  limited: null,
  broadcasts: 60,
  fullAfter: null,
};
const one = { vlans: 'VLAN 110', one: true, parts: 'gate' };
const many = { vlans: 'VLANs 110, 120', one: false, parts: 'gate, workshop; crane-yard' };
const forwards = { code: 'forwards', role: 'root' } as const;

export const storySamples: Samples<typeof storyMessages> = {
  'unreachable-from-start': [[{ pair }]],
  unreachable: [[{ pair }]],
  'unreachable-to-end': [[{ pair }]],
  reachable: [[{ pair, after: 12_000 }]],
  'other-path': [[{ pair }]],
  copies: [[{ pair, copies: 2 }]],
  flooded: [[{ pair, switches: 'quay-a and quay-b', ports: 1 }], [{ pair, switches: 'quay-a', ports: 14 }]],
  'flooding-ends': [[{ pair, after: 25_000_000 }]],
  shut: [
    [{ port: 'Gate 3', until: null, guard: 'bpdu' }],
    [{ port: 'Gate 3', until: 300_000_000, guard: 'one-way' }],
    [{ port: 'Gate 3', until: 300_000_000, guard: 'storm' }],
  ],
  'one-way': [[{ port: 'Gate 3', how: 'deaf' }], [{ port: 'Gate 3', how: 'unheard' }]],
  recovered: [[{ port: 'Gate 3' }]],
  bundle: [[{ bundle: 'quay-a to-core', active: 1, of: 2 }]],
  restart: [[{ name: 'Gate' }]],
  root: [
    [{ name: 'Core-west', trees: 'VLAN 110', after: null }],
    [{ name: 'Core-west', trees: 'the CIST', after: 2_000 }],
  ],
  'loop-ends': [[{ vlans: 'VLAN 110', ports: 'gate p1, quay-a 4', after: 3_000_000 }]],
  loop: [
    [{ vlans: 'VLAN 110', ports: 'gate p1, quay-a 4', effect }],
    [{ vlans: 'VLAN 110', ports: 'gate p1', effect: { ...effect, fullAfter: 900 } }],
    [{ vlans: 'VLAN 110', ports: 'gate p1', effect: { ...effect, limited: 10 } }],
  ],
  flushed: [[{ entries: 1, switches: 1 }], [{ entries: 12, switches: 3 }]],
  port: [
    [{ port: 'Gate p1', place: ' in VLAN 110', change: forwards }],
    [{ port: 'Gate p1', place: '', change: { code: 'forwards', role: 'disabled' } }],
    ...(['guarded', 'inconsistent', 'consistent', 'blocked', 'listening'] as const).map(
      (code): [{ port: string; place: string; change: { code: typeof code } }] => [
        { port: 'Gate p1', place: ' in every tree', change: { code } },
      ],
    ),
  ],
  ports: [
    [{ number: 7, ports: 'gate p1, gate 2 and 5 more ports', place: '', change: forwards }],
    ...(['guarded', 'inconsistent', 'consistent', 'blocked', 'listening'] as const).map(
      (code): [{ number: number; ports: string; place: string; change: { code: typeof code } }] => [
        { number: 7, ports: 'gate p1, gate 2', place: ' in VLAN 110', change: { code } },
      ],
    ),
  ],
  flap: [
    [{ ports: 'Gate p1', one: true, until: 9_000_000, times: 8 }],
    [{ ports: 'Gate p1, gate 2', one: false, until: 9_000_000, times: 8 }],
  ],
  'many-flap': [[{ number: 9, ports: 'gate p1, gate 2', until: 9_000_000, times: 8 }]],
  connected: [[{ vlans: 'VLAN 110', one: true, after: 500 }], [{ vlans: 'VLANs 110, 120', one: false, after: 500 }]],
  partitioned: [[{ ...one, when: 'start' }], [{ ...many, when: 'now' }], [{ ...many, when: 'still' }]],
  'partitioned-often': [
    [{ ...one, when: 'start', times: 1, until: 9_000_000 }],
    [{ ...many, when: 'now', times: 4, until: 9_000_000 }],
    [{ ...many, when: 'still', times: 4, until: 9_000_000 }],
  ],
  'now-looping': [
    [{ vlans: 'VLAN 110', ports: 'gate p1, quay-a 4', since: 0, effect }],
    [{ vlans: 'VLAN 110', ports: 'gate p1, quay-a 4', since: 1_000_000, effect }],
  ],
  'now-shut': [
    [{ port: 'Gate 3', until: null, at: 0, guard: 'bpdu' }],
    [{ port: 'Gate 3', until: 300_000_000, at: 1_000_000, guard: 'one-way' }],
    [{ port: 'Gate 3', until: 300_000_000, at: 1_000_000, guard: 'storm' }],
  ],
  'now-root-guard': [[{ port: 'Gate 3' }]],
  'now-loop-guard': [[{ port: 'Gate 3' }]],
  'now-silence-guard': [[{ port: 'Gate 3' }]],
  'now-inconsistent': [[{ port: 'Gate 3', trees: 'VLAN 10', difference: 'the ends differ in their untagged VLAN' }]],
};

export const signSamples = {
  stranger: [[{ port: '10', priority: 4096 }]],
  hub: [[{ port: '10' }]],
  shut: [
    [{ port: '10', guard: 'bpdu', left: 12_500_000 }],
    [{ port: '10', guard: 'one-way', left: null }],
    [{ port: '10', guard: 'storm', left: null }],
  ],
  held: [[{ port: '10' }]],
} satisfies Samples<typeof signMessages>;
