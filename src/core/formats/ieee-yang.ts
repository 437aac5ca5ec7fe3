/**
 * Settings of each switch as JSON after the YANG module of IEEE 802.1Q (ieee802-dot1q-bridge) and ietf-interfaces, in the
 * encoding of RFC 7951. The module has bridges, VLANs, what ports carry, and the table of instances; spanning tree by
 * itself has none.
 */
import { bundlesOf, modeOf, portsOf } from '../design';
import type { Bundle, Design, Port, Switch } from '../design';
import { MODE_WORDS } from '../messages';
import { mstConfigOf } from '../network';
import { TIMERS, vlanMembership } from '../standard';
import { bundleLine, settingLines } from './device-settings';

type Json = Record<string, unknown>;

const MODULE = 'ieee802-dot1q-bridge:';
const COMPONENT = 'vlans';
/** Fields that have a leaf. */
const COVERED = new Set(['vlans', 'native', 'down', 'ageingTime', 'mstName', 'mstRevision']);

/** `00-00-5E-00-53-01`, as ieee:mac-address has it. */
const address = (mac: string): string => mac.toUpperCase().replaceAll(':', '-');

const carries = (e: Port | Bundle, vlan: number): boolean => vlanMembership(e.vlans ?? 'all')[vlan] === 1;

/** Which ports carry a VLAN, tagged or not (802.1Q 12.7.7). */
const registration = (vlan: number, all: readonly (Port | Bundle)[]): Json => ({
  'database-id': 1,
  vids: String(vlan),
  'entry-type': 'static',
  'port-map': all
    .filter((e) => carries(e, vlan))
    .map((e) => ({
      'port-ref': e.number,
      'static-vlan-registration-entries': {
        'registrar-admin-control': 'fixed-new-ignored',
        'vlan-transmitted': e.native === vlan ? 'untagged' : 'tagged',
      },
    })),
});

/** Each VLAN learns by itself; what is in no instance is in the CIST, and stands nowhere. */
function instances(design: Design, s: Switch): Json {
  if (modeOf(design, s) !== 'mstp') return {};
  const { map, instances: list } = mstConfigOf(design, s);
  const inside = design.vlans.filter((v) => (map[v.number] ?? 0) > 0);
  return {
    'bridge-mst': {
      mstid: [...list],
      'fid-to-mstid': inside.map((v) => ({ fid: v.number, mstid: map[v.number] })),
    },
  };
}

function component(design: Design, s: Switch, all: readonly (Port | Bundle)[]): Json {
  return {
    name: COMPONENT,
    id: 1,
    type: `${MODULE}c-vlan-component`,
    address: address(s.mac),
    'filtering-database': {
      'aging-time': s.ageingTime ?? TIMERS.ageingTime.default,
      'vlan-registration-entry': design.vlans.map((v) => registration(v.number, all)),
    },
    'bridge-vlan': {
      vlan: design.vlans.map(({ number: vid, name }) => ({ vid, ...(name ? { name } : {}) })),
      'vid-to-fid': design.vlans.map(({ number }) => ({ vid: number, fid: number })),
    },
    ...instances(design, s),
  };
}

function portInterface(s: Switch, e: Port | Bundle, isMember: boolean): Json {
  return {
    name: e.name,
    type: `iana-if-type:${'members' in e ? 'ieee8023adLag' : 'ethernetCsmacd'}`,
    enabled: 'members' in e || !e.down,
    ...('description' in e && e.description ? { description: e.description } : {}),
    ...(isMember
      ? {}
      : {
          [`${MODULE}bridge-port`]: {
            'bridge-name': s.name,
            'component-name': COMPONENT,
            ...(e.native === undefined || e.native === null ? {} : { pvid: e.native }),
          },
        }),
  };
}

/** What the modules have no leaf for, in words. */
function left(design: Design, s: Switch, ports: readonly Port[], bundles: readonly Bundle[]): string[] {
  const bare = (e: object) => Object.fromEntries(Object.entries(e).filter(([field]) => !COVERED.has(field)));
  const of = (kind: string, at: string, e: object) => settingLines(design, kind, bare(e)).map((line) => `${at}${line}`);
  const mode = modeOf(design, s);
  return [
    `spanning tree: ${MODE_WORDS[mode]}`,
    ...(mode === 'mstp' ? [`region ${mstConfigOf(design, s).name}, revision ${mstConfigOf(design, s).revision}`] : []),
    ...of('switch', '', s),
    ...ports.flatMap((p) => of('port', `port ${p.name}, `, p)),
    ...bundles.flatMap((b) => [bundleLine(design, b), ...of('bundle', `bundle ${b.name}, `, b)]),
  ];
}

/** Settings by device; what the modules have no leaf for stands in `notInModel`, nothing is dropped. */
export function ieeeYangOf(design: Design): Json {
  return Object.fromEntries(
    design.switches.map((s) => {
      const [ports, bundles] = [portsOf(design, s.id), bundlesOf(design, s.id)];
      const members = new Set(bundles.flatMap((b) => b.members));
      const all = [...ports.filter((p) => !members.has(p.id)), ...bundles];
      const bridge = {
        name: s.name,
        address: address(s.mac),
        'bridge-type': `${MODULE}customer-vlan-bridge`,
        component: [component(design, s, all)],
      };
      return [
        s.name,
        {
          [`${MODULE}bridges`]: { bridge: [bridge] },
          'ietf-interfaces:interfaces': {
            interface: [...ports, ...bundles].map((e) => portInterface(s, e, members.has(e.id))),
          },
          notInModel: left(design, s, ports, bundles),
        },
      ];
    }),
  );
}

export const exportIeeeYang = (design: Design): string => `${JSON.stringify(ieeeYangOf(design), null, 2)}\n`;
