/** Who takes part in LACP, told once for the verdicts and for the machines: a bundle of a switch, or the cards of a host. */
import { portById, switchById } from '../design';
import type { Bundle, Design, Host } from '../design';
import { ACTIVE_MEMBERS, LACP_PRIORITY, SECOND, fewestMembers, macToNumber } from '../standard';
import { isHalfDuplex, portIsUp, rateAt } from './link-state';

export interface LacpEndPort {
  readonly number: number;
  /** LACP port priority. */
  readonly priority: number;
  /** Mb/s that the cable runs at. */
  readonly speed: number;
  readonly half: boolean;
  readonly up: boolean;
}

export interface LacpEndSettings {
  readonly system: number;
  readonly systemPriority: number;
  readonly key: number;
  readonly activity: 'active' | 'passive';
  readonly timeout: 'short' | 'long';
  readonly minActive: number;
  /** Mb/s that members have to carry together. */
  readonly minRate: number;
  readonly maxActive: number;
  /** Whether members go on as single ports while the partner is silent. */
  readonly individual: boolean;
  /** Microseconds that a member which came up waits while others carry. */
  readonly returnDelay: number;
  /** Whether members that carry go on, though better ones come back. */
  readonly keepsWorking: boolean;
  readonly ports: readonly LacpEndPort[];
}

/**
 * System addresses of hosts, whose own are not known: locally administered and above every other individual address, so
 * that with the worst priority, which hosts have too, a host never decides which members wait (802.1AX-2014 6.7.1).
 */
const FIRST_HOST_SYSTEM = 0xfe_ff_ff_00_00_00;

const cableOf = (design: Design, id: string): Pick<LacpEndPort, 'speed' | 'half' | 'up'> => ({
  speed: rateAt(design, id),
  half: isHalfDuplex(design, id),
  up: portIsUp(design, id),
});

/** An end of a bundle at a switch, with the given members. A proprietary negotiation goes through the same machines. */
export function bundleLacpEnd(
  design: Design,
  bundle: Bundle,
  members: readonly string[] = bundle.members,
): LacpEndSettings {
  const s = switchById(design, bundle.switch)!;
  return {
    system: macToNumber(bundle.systemMac ?? s.mac),
    systemPriority: bundle.systemPriority ?? s.lacpPriority ?? LACP_PRIORITY.default,
    key: bundle.key ?? bundle.number,
    activity: bundle.activity ?? 'active',
    timeout: bundle.timeout ?? 'long',
    minActive: bundle.minActive ?? ACTIVE_MEMBERS.min,
    minRate: bundle.minRate ?? 0,
    returnDelay: (bundle.returnDelay ?? 0) * SECOND,
    keepsWorking: bundle.keepsWorking ?? false,
    maxActive: bundle.maxActive ?? ACTIVE_MEMBERS.max,
    individual: bundle.individual ?? true,
    ports: members.map((id) => ({
      number: portById(design, id)!.number,
      priority: portById(design, id)!.lacpPriority ?? LACP_PRIORITY.default,
      ...cableOf(design, id),
    })),
  };
}

/** What a partner knows a bundle by: two bundles of which it is the same are one to it. */
export function lacpIdentity(design: Design, bundle: Bundle): string {
  const { system, systemPriority, key } = bundleLacpEnd(design, bundle, []);
  return [systemPriority, system, key].join(' ');
}

/** Fewest members of a bundle that are enough where each carries `speed` Mb/s. */
export const minimumAt = (
  { minActive = ACTIVE_MEMBERS.min, minRate = 0 }: Pick<Bundle, 'minActive' | 'minRate'>,
  speed: number | undefined,
): number => fewestMembers(minActive, minRate, speed ?? 0);

/** A host's cards as the other end, by the switch ports that they are plugged into. */
export function hostLacpEnd(design: Design, host: Host, ports: readonly string[]): LacpEndSettings {
  return {
    system: FIRST_HOST_SYSTEM + design.hosts.findIndex((h) => h.id === host.id),
    systemPriority: LACP_PRIORITY.max,
    key: 1,
    activity: host.bond === 'lacp-passive' ? 'passive' : 'active',
    timeout: 'long',
    minActive: ACTIVE_MEMBERS.min,
    minRate: 0,
    returnDelay: 0,
    keepsWorking: false,
    maxActive: ACTIVE_MEMBERS.max,
    individual: true,
    ports: ports.map((id, i) => ({ number: i + 1, priority: LACP_PRIORITY.default, ...cableOf(design, id) })),
  };
}
