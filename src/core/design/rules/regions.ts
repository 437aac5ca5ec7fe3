/** Rules about MST regions and goals: one instance a VLAN, not too many instances, regions that exist. */
import { MOST_INSTANCES, vlanMembership } from '../../standard';
import type { Fault } from '../fault';
import type { Rule, RuleEntry } from './rule';
import { switchById } from '../look-ups';
import type { Region } from '../schema';
import { documentMessages as say } from '../../messages';

/** The first VLAN that stands in two instances of a region. */
function doubleVlan({ map }: Region): { vlan: number; first: string; second: string } | null {
  const taken = new Map<number, string>();
  for (const [instance, vlans] of Object.entries(map)) {
    const held = vlanMembership(vlans);
    for (let vlan = 1; vlan < 4095; vlan++) {
      if (!held[vlan]) continue;
      const first = taken.get(vlan);
      if (first !== undefined) return { vlan, first, second: instance };
      taken.set(vlan, instance);
    }
  }
  return null;
}

const maps: Rule = ({ regions }) =>
  regions.flatMap((region, i) => {
    const faults: Fault[] = [];
    const twice = doubleVlan(region);
    if (twice)
      faults.push({
        code: 'vlan-in-two-instances',
        path: ['regions', i, 'map', twice.second],
        sentence: say.vlanTwice(region.name, twice.vlan, twice.first, twice.second),
      });
    const count = Object.keys(region.map).length;
    if (count > MOST_INSTANCES)
      faults.push({
        code: 'too-many-instances',
        path: ['regions', i, 'map'],
        sentence: say.tooManyInstances(`Region '${region.name}'`, count),
      });
    return faults;
  });

const membership: Rule = ({ switches, regions }) => {
  const known = new Map(regions.map((r) => [r.id, r]));
  return switches.flatMap((s, i) => {
    const region = s.region === undefined ? regions[0] : known.get(s.region);
    if (s.region !== undefined && !region)
      return [{ code: 'no-region', path: ['switches', i, 'region'], sentence: say.noSuch('region', s.region) }];
    if (!s.vlanInstance) return [];
    const instances = new Set([
      ...Object.keys(region?.map ?? {}).map(Number),
      ...Object.values(s.vlanInstance).filter((instance) => instance !== 0),
    ]);
    return instances.size > MOST_INSTANCES
      ? [
          {
            code: 'too-many-instances',
            path: ['switches', i, 'vlanInstance'],
            sentence: say.tooManyInstances(`Switch '${s.name}'`, instances.size),
          },
        ]
      : [];
  });
};

/** Two ranks on one switch cannot both hold. */
const ranks: Rule = (design) =>
  design.goals.flatMap((goal, i) =>
    goal.type === 'root' && goal.next === goal.switch
      ? [
          {
            code: 'two-ranks',
            path: ['goals', i, 'next'],
            sentence: say.sameSwitchTwice(switchById(design, goal.switch)?.name ?? goal.switch),
          },
        ]
      : [],
  );

export const regionRules: readonly RuleEntry[] = [
  { after: ['region.*', 'region.map'], rule: maps },
  { after: ['region.*', 'region.map', 'switch.*', 'switch.region', 'switch.vlanInstance'], rule: membership },
  { after: ['goal.*', 'goal.next', 'goal.switch'], rule: ranks },
];
