/** VLANs that do not reach, or lead nowhere. */
import { parseVlanRanges, vlanMembership } from '../../standard';
import { portsOf, bundlesOf } from '../../design';
import { reviewMessages as say } from '../../messages';
import { Adjacency, walk } from '../vlan-graphs';
import { namesOf, vlansInWords } from './rule';
import type { Context, Found, Rule } from './rule';

/** VLANs that are parted today, with whether cables that carry them would join what is parted. */
function partings(c: Context): { vlans: readonly number[]; switches: readonly number[]; cabled: boolean }[] {
  return c.parted.map(({ vlans, switches }) => {
    const graph = c.graphs.find((g) => g.vlans.includes(vlans[0]!));
    if (!graph) return { vlans, switches, cabled: false };
    const { part } = walk(new Adjacency(graph.nodes, graph.edges));
    const rest = graph.nodes.find((n) => n < c.design.switches.length && !switches.includes(n));
    return { vlans, switches, cabled: rest !== undefined && switches.some((s) => part[s] === part[rest]) };
  });
}

const parting = (code: 'vlan-parted' | 'vlan-parted-by-tree', cabled: boolean): Rule => ({
  code,
  severity: 'fault',
  find: (c) =>
    partings(c).flatMap((p): Found[] => {
      if (p.cabled !== cabled) return [];
      const subjects = p.switches.map((s) => c.switchAt(s));
      const names = namesOf(subjects.map((s) => s.name));
      return [{ subjects, sentence: say[code]({ vlans: vlansInWords(p.vlans), names }) }];
    }),
});
export const vlanParted = parting('vlan-parted', false);
export const vlanPartedByTree = parting('vlan-parted-by-tree', true);

export const vlanNoPort: Rule = {
  code: 'vlan-no-port',
  severity: 'remark',
  find: (c) =>
    c.design.switches.flatMap((s): Found[] => {
      const sets = [...portsOf(c.design, s.id), ...bundlesOf(c.design, s.id)].map((p) =>
        vlanMembership(p.vlans ?? 'all'),
      );
      const lost = Object.keys(s.vlanPriority ?? {})
        .map(Number)
        .filter((v) => !sets.some((set) => set[v]));
      if (lost.length === 0) return [];
      return [
        {
          subjects: [{ kind: 'switch', id: s.id, name: s.name }],
          sentence: say['vlan-no-port']({ name: s.name, vlans: vlansInWords(lost) }),
        },
      ];
    }),
};

/** Lists of a few VLANs are meant one by one; ranges may cover what is to come. */
export const vlanNotMade: Rule = {
  code: 'vlan-not-made',
  severity: 'remark',
  find: ({ design }) => {
    const made = new Set(design.vlans.map((v) => v.number));
    const named = [...design.ports, ...design.bundles].flatMap(({ vlans, native }) => {
      const parsed = vlans && !vlans.includes('-') && vlans !== 'all' ? parseVlanRanges(vlans) : null;
      return [...(parsed?.ok ? parsed.vlans : []), ...(native === undefined ? [] : [native])];
    });
    const lost = [...new Set([...named, ...design.hosts.flatMap((h) => h.vlan ?? [])])].filter((v) => !made.has(v));
    return lost.map((v) => ({
      subjects: [{ kind: 'vlan', id: String(v), name: `VLAN ${v}` }],
      sentence: say['vlan-not-made']({ vlans: vlansInWords([v]) }),
    }));
  },
};
