/** Generated campuses of any size, for benchmarks and for trying the interface with many switches. */
import { numberToMac } from '../core/standard';
import type { Design } from '../core/design';
import { DesignDraft } from './build';

export interface CampusSize {
  readonly switches: number;
  readonly vlans: number;
  /** Groups of VLANs with a root of their own; each group has an outcome of its own. */
  readonly outcomes: number;
}

const CLOSETS_PER_BUILDING = 23;

/**
 * Two core switches, a pair of distribution switches per building, access switches cabled twice to both. Roots of the
 * VLAN groups rotate over the core and distribution switches, so that every group settles differently.
 */
export function campus({ switches, vlans, outcomes }: CampusSize): Design {
  const draft = new DesignDraft(`Campus of ${switches} switches`);
  for (let v = 0; v < vlans; v++) draft.vlan(10 + v, `segment ${10 + v}`, v % 7);
  let made = 0;
  const used = new Map<string, number>();
  const nextPort = (name: string) => {
    const number = (used.get(name) ?? 0) + 1;
    used.set(name, number);
    return [name, number] as const;
  };
  // MAC addresses in a scattered order, so that no tier is favoured.
  const address = () => numberToMac(0x00005e100000 + ((made * 7919) % 65536));
  const groups: string[] = [];
  const place = (name: string, tier: 'core' | 'distribution' | 'access', x: number, y: number) => {
    draft.switch(name, address(), tier, x, y);
    if (tier !== 'access') groups.push(name);
    made++;
    return name;
  };
  const cable = (a: string, b: string, speed: number) => draft.link(nextPort(a), nextPort(b), speed, 'all');

  const buildings = Math.max(1, Math.ceil((switches - 2) / (CLOSETS_PER_BUILDING + 2)));
  const width = buildings * 520;
  const cores = [place('core-1', 'core', width / 2 - 200, 0), place('core-2', 'core', width / 2 + 200, 0)];
  cable(cores[0]!, cores[1]!, 100000);
  cable(cores[0]!, cores[1]!, 100000);
  for (let b = 0; b < buildings && made < switches; b++) {
    const label = `b${String(b + 1).padStart(2, '0')}`;
    const pair = ['a', 'b'].map((side, i) =>
      place(`${label}-dist-${side}`, 'distribution', b * 520 + 120 + i * 240, 260),
    );
    for (const dist of pair) for (const core of cores) cable(core, dist, 10000);
    cable(pair[0]!, pair[1]!, 10000);
    for (let c = 0; c < CLOSETS_PER_BUILDING && made < switches; c++) {
      const x = b * 520 + (c % 4) * 125;
      const closet = place(
        `${label}-acc-${String(c + 1).padStart(2, '0')}`,
        'access',
        x,
        480 + Math.floor(c / 4) * 130,
      );
      for (const dist of pair) {
        cable(dist, closet, 1000);
        cable(dist, closet, 1000);
      }
    }
  }
  const bridges = new Map(draft.design.switches.map((s) => [s.name, s]));
  for (let v = 0; v < vlans; v++) {
    const root = bridges.get(groups[(v % outcomes) % groups.length]!)!;
    (root.vlanPriority ??= {})[String(10 + v)] = 4096;
  }
  return draft.design;
}
