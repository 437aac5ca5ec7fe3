/** Regions, instances and kinds of spanning tree that meet. */
import { groupBy, isPerVlan, modeOf, switchById } from '../../design';
import { MODE_WORDS, reviewMessages as say } from '../../messages';
import { differenceSentences, isMixed, mixtureOf, mstConfigOf, regionMap } from '../../network';
import { count } from '../../standard';
import { joinedAt } from '../../trees';
import { namesOf } from './rule';
import type { Context, Found, Rule } from './rule';

/** Instances that a bridge has to hold (802.1Q 13.14). */
const MOST_INSTANCES = 64;

export const regionDiffers: Rule = {
  code: 'region-differs',
  severity: 'fault',
  find: (c) => {
    const seen = new Set<string>();
    return c.joints.flatMap((j): Found[] => {
      const [a, b] = [j.a, j.b].map((p) => switchById(c.design, p.switch)!) as [
        Parameters<typeof modeOf>[1],
        Parameters<typeof modeOf>[1],
      ];
      const key = [a.id, b.id].sort().join('\n');
      if (seen.has(key) || [a, b].some((s) => modeOf(c.design, s) !== 'mstp')) return [];
      seen.add(key);
      // Two regions are meant where the design has them.
      if (a.region !== b.region && c.design.regions.length > 1) return [];
      const [own, other] = [mstConfigOf(c.design, a), mstConfigOf(c.design, b)];
      const differences = differenceSentences(a.name, own, b.name, other);
      if (differences.length === 0) return [];
      const words = differences.slice(0, 2).join(' ');
      return [
        {
          subjects: [a, b].map((s) => ({ kind: 'switch', id: s.id, name: s.name })),
          sentence: say['region-differs']({ a: a.name, b: b.name, words }),
        },
      ];
    });
  },
};

/** Regions with the instances that their map names. */
const regions = (c: Context) =>
  c.design.regions.map((region) => {
    const map = regionMap(region);
    const instances = Object.keys(region.map).map(Number);
    return { region, map, instances, subject: { kind: 'region' as const, id: region.id, name: region.name } };
  });

export const instanceEmpty: Rule = {
  code: 'instance-empty',
  severity: 'remark',
  find: (c) =>
    regions(c).flatMap(({ region, map, instances, subject }) =>
      instances.flatMap((instance): Found[] =>
        c.design.vlans.some((v) => map[v.number] === instance)
          ? []
          : [{ subjects: [subject], sentence: say['instance-empty']({ instance, region: region.name }) }],
      ),
    ),
};

export const vlan1Mapped: Rule = {
  code: 'vlan1-mapped',
  severity: 'remark',
  find: (c) =>
    regions(c).flatMap(({ region, map, subject }): Found[] =>
      map[1] === 0
        ? []
        : [{ subjects: [subject], sentence: say['vlan1-mapped']({ instance: map[1]!, region: region.name }) }],
    ),
};

export const tooManyInstances: Rule = {
  code: 'too-many-instances',
  severity: 'risk',
  find: (c) =>
    regions(c).flatMap(({ region, instances, subject }): Found[] =>
      instances.length > MOST_INSTANCES
        ? [
            {
              subjects: [subject],
              sentence: say['too-many-instances']({ region: region.name, instances: instances.length }),
            },
          ]
        : [],
    ),
};

/** Trees that a switch has to run: its own of VLANs, or those of its region with the CIST, or the common one. */
function treesOf(c: Context, bridge: number): number {
  const s = c.design.switches[bridge]!;
  const mode = modeOf(c.design, s);
  if (mode === 'mstp') return 1 + mstConfigOf(c.design, s).instances.length;
  if (!isPerVlan(mode)) return 1;
  const acts = c.solved.topology.actsAs[bridge]!;
  return c.solved.trees.filter(({ tree, problem }) => tree.vlan !== null && problem.bridgeTakesPart[acts]).length;
}

export const tooManyTrees: Rule = {
  code: 'too-many-trees',
  severity: 'fault',
  find: (c) =>
    c.design.switches.flatMap((s, b): Found[] => {
      if (s.maxTrees === undefined || s.off) return [];
      const trees = treesOf(c, b);
      return trees <= s.maxTrees
        ? []
        : [{ subjects: [c.switchAt(b)], sentence: say['too-many-trees']({ name: s.name, trees, most: s.maxTrees }) }];
    }),
};

export const instancesAlike: Rule = {
  code: 'instances-alike',
  severity: 'remark',
  find: (c) => {
    const own = c.solved.trees.filter((of) => of.tree.instance && of.tree.vlans.length > 0);
    return [...groupBy(own, (of) => of.fold).values()].flatMap((group): Found[] =>
      group.length < 2
        ? []
        : [
            {
              subjects: group.map((of) => ({ kind: 'design', id: of.tree.id, name: `instance ${of.tree.instance}` })),
              sentence: say['instances-alike']({ instances: namesOf(group.map((of) => String(of.tree.instance))) }),
            },
          ],
    );
  },
};

export const modesMixed: Rule = {
  code: 'modes-mixed',
  severity: 'risk',
  find: ({ design }) => {
    if (!isMixed(mixtureOf(design))) return [];
    const modes = [...groupBy(design.switches, (s) => modeOf(design, s))];
    const words = modes
      .map(([mode, of]) => `${count(of.length, 'switch', 'switches')} with ${MODE_WORDS[mode]}`)
      .join(', ');
    return [{ subjects: [{ kind: 'design', id: 'mode', name: design.name }], sentence: say['modes-mixed']({ words }) }];
  },
};

export const treesJoined: Rule = {
  code: 'trees-joined',
  severity: 'fault',
  find: (c) => {
    const { topology } = c.solved;
    if (!isMixed(mixtureOf(c.design))) return [];
    return topology.ports.flatMap(({ element }, p): Found[] => {
      const vlan = element.native === undefined ? 0 : joinedAt(topology, p);
      if (vlan === 0 || element.vlans !== String(vlan)) return [];
      return [{ subjects: [c.portOf(element)], sentence: say['trees-joined']({ name: c.portName(element), vlan }) }];
    });
  },
};
