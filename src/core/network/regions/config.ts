/**
 * The MST configuration of a switch: name, revision and VLAN-to-instance map, and the digest by which the protocol
 * compares maps (802.1Q-2018 clauses 8.9 and 13.8).
 */
import { hmac } from '@noble/hashes/hmac';
import { md5 } from '@noble/hashes/legacy';
import { bytesToHex, hexToBytes } from '@noble/hashes/utils';
import { modeOf } from '../../design';
import type { Design, Region, Switch } from '../../design';
import { VLAN_ID, vlanMembership } from '../../standard';

/** The signature key that every bridge uses (802.1Q-2018 clause 13.8). */
const DIGEST_KEY = hexToBytes('13ac06a62e47fd51f95d2ba243cd0346');

/** MSTID by VLAN, 4096 entries; 0 is the CIST. */
export type InstanceMap = Uint16Array;

export interface MstConfig {
  readonly name: string;
  readonly revision: number;
  readonly map: InstanceMap;
  /** 32 hex digits in upper case. */
  readonly digest: string;
  /** MSTIDs that have a VLAN, ascending, without the CIST. */
  readonly instances: readonly number[];
  /** Equal for configurations that make one region. */
  readonly key: string;
}

/** Configuration digest: HMAC-MD5 over 4096 two-octet MSTIDs in the order of VLANs (802.1Q-2018 clause 13.8). */
export function configurationDigest(map: InstanceMap): string {
  const octets = new Uint8Array(8192);
  for (let vlan = VLAN_ID.min; vlan <= VLAN_ID.max; vlan++) {
    octets[2 * vlan] = map[vlan]! >> 8;
    octets[2 * vlan + 1] = map[vlan]! & 0xff;
  }
  return bytesToHex(hmac(md5, DIGEST_KEY, octets)).toUpperCase();
}

/** The map that a region gives to its switches. */
export function regionMap(region: Region | undefined): InstanceMap {
  const map = new Uint16Array(4096);
  for (const [instance, vlans] of Object.entries(region?.map ?? {})) {
    const held = vlanMembership(vlans);
    for (let vlan = VLAN_ID.min; vlan <= VLAN_ID.max; vlan++) if (held[vlan]) map[vlan] = Number(instance);
  }
  return map;
}

/** The region a switch is meant to be in: the one it names, else the first; undefined in a design without regions. */
export const regionOf = ({ regions }: Pick<Design, 'regions'>, s: Switch): Region | undefined =>
  s.region === undefined ? regions[0] : regions.find((r) => r.id === s.region);

function build(region: Region | undefined, s: Switch): MstConfig {
  const map = regionMap(region);
  for (const [vlan, instance] of Object.entries(s.vlanInstance ?? {})) map[Number(vlan)] = instance;
  // Without a configuration a bridge names its region after itself (802.1Q-2018 clause 13.8).
  const name = s.mstName ?? region?.name ?? s.mac;
  const revision = s.mstRevision ?? region?.revision ?? 0;
  const digest = configurationDigest(map);
  const instances = [...new Set(map)].filter((instance) => instance !== 0).sort((a, b) => a - b);
  return { name, revision, map, digest, instances, key: `${revision}\n${digest}\n${name}` };
}

const known = new WeakMap<readonly Region[], Map<string, MstConfig>>();

/** The configuration that a switch has in force; remembered as long as the list of regions lives. */
export function mstConfigOf(design: Pick<Design, 'regions'>, s: Switch): MstConfig {
  let configs = known.get(design.regions);
  if (!configs) known.set(design.regions, (configs = new Map()));
  const region = regionOf(design, s);
  const own = region || s.mstName !== undefined ? '' : s.mac;
  const key = JSON.stringify([region?.id, s.mstName, s.mstRevision, s.vlanInstance, own]);
  let config = configs.get(key);
  if (!config) configs.set(key, (config = build(region, s)));
  return config;
}

/** Switches of a design that run MSTP. */
export const mstSwitches = (design: Design): Switch[] => design.switches.filter((s) => modeOf(design, s) === 'mstp');
