/** What hangs on one thing: pairs, single links and switches, the way of the management; and links that are full. */
import { linkById, portById } from '../../design';
import { loadsOf, percentOut } from '../../analysis';
import { reviewMessages as say } from '../../messages';
import { pairReport } from '../../network';
import { edgeLack, nodeCuts } from '../lacks';
import type { VlanGraph } from '../vlan-graphs';
import { namesOf, vlansInWords } from './rule';
import type { Context, Found, Rule, Subject } from './rule';

const pairs = (c: Context) =>
  c.design.pairs.map((pair) => {
    const name = pair.switches.map((s) => c.name(s)).join(', ');
    return { pair, name, subject: { kind: 'pair', id: pair.id, name } satisfies Subject };
  });

export const pairInconsistent: Rule = {
  code: 'pair-inconsistent',
  severity: 'fault',
  find: (c) =>
    pairs(c).flatMap(({ pair, name, subject }) =>
      pairReport(c.design, pair).checks.flatMap((check): Found[] =>
        check.ok
          ? []
          : [
              {
                subjects: [subject],
                sentence: say['pair-inconsistent']({ name, what: check.what, why: check.sentence }),
              },
            ],
      ),
    ),
};

export const peerOneCable: Rule = {
  code: 'peer-one-cable',
  severity: 'risk',
  find: (c) =>
    pairs(c).flatMap(({ pair, name, subject }): Found[] => {
      const working = pair.peer.filter((id) => linkById(c.design, id)?.down === undefined && linkById(c.design, id));
      return working.length === 1 ? [{ subjects: [subject], sentence: say['peer-one-cable']({ name }) }] : [];
    }),
};

export const pairNoKeepalive: Rule = {
  code: 'pair-no-keepalive',
  severity: 'risk',
  find: (c) =>
    pairs(c).flatMap(({ pair, name, subject }): Found[] =>
      pair.keepalive === undefined ? [{ subjects: [subject], sentence: say['pair-no-keepalive']({ name }) }] : [],
    ),
};

export const keepaliveOverPeer: Rule = {
  code: 'keepalive-over-peer',
  severity: 'fault',
  find: (c) =>
    pairs(c).flatMap(({ pair, name, subject }): Found[] =>
      pair.keepalive !== undefined && pair.peer.includes(pair.keepalive)
        ? [{ subjects: [subject], sentence: say['keepalive-over-peer']({ name }) }]
        : [],
    ),
};

const switchesIn = (c: Context, nodes: readonly number[]): Subject[] =>
  nodes.filter((n) => n < c.design.switches.length).map((n) => c.switchAt(n));

/** Groups of switches that hang on one link, with the VLANs in which they do; parts that stand alone are found by other rules. */
function hanging(c: Context, graphs: readonly VlanGraph[]): { names: Subject[]; vlans: number[] }[] {
  const found = new Map<string, { names: Subject[]; vlans: number[] }>();
  for (const graph of graphs) {
    const { ends } = edgeLack(graph);
    const lone = new Set(c.parted.filter((p) => p.vlans.includes(graph.vlans[0]!)).flatMap((p) => p.switches));
    const leaves = ends.filter((nodes) => !nodes.some((n) => lone.has(n)));
    // Of all that hang on single links the largest group is the network.
    const largest = leaves.reduce((a, b) => (b.length > a.length ? b : a), [] as readonly number[]);
    for (const nodes of leaves) {
      if (nodes === largest && leaves.length > 1) continue;
      const key = nodes.join();
      const known = found.get(key) ?? { names: switchesIn(c, nodes), vlans: [] };
      known.vlans.push(...graph.vlans);
      found.set(key, known);
    }
  }
  return [...found.values()].filter(({ names }) => names.length > 0);
}

export const singleLink: Rule = {
  code: 'single-link',
  severity: 'risk',
  find: (c) =>
    hanging(c, c.graphs).map(({ names, vlans }) => ({
      subjects: names,
      sentence: say['single-link']({ names: namesOf(names.map((n) => n.name)), vlans: vlansInWords(vlans) }),
    })),
};

export const singleSwitch: Rule = {
  code: 'single-switch',
  severity: 'risk',
  find: (c) => {
    const cuts = new Map<number, number[]>();
    for (const graph of c.graphs)
      for (const n of nodeCuts(graph, c.design.switches.length)) cuts.set(n, [...(cuts.get(n) ?? []), ...graph.vlans]);
    return [...cuts].map(([n, vlans]) => ({
      subjects: [c.switchAt(n)],
      sentence: say['single-switch']({ name: c.switchAt(n).name, vlans: vlansInWords(vlans) }),
    }));
  },
};

/** The VLAN by which switches are managed: the one that is called so. */
export const managementOneLink: Rule = {
  code: 'management-one-link',
  severity: 'risk',
  find: (c) =>
    c.design.vlans.flatMap((v): Found[] => {
      if (!/manag/i.test(v.name ?? '')) return [];
      const own = c.graphs.filter((g) => g.vlans.includes(v.number)).map((g) => ({ ...g, vlans: [v.number] }));
      return hanging(c, own).map(({ names }) => ({
        subjects: names,
        sentence: say['management-one-link']({
          vlan: `VLAN ${v.number} ${v.name}`,
          names: namesOf(names.map((n) => n.name)),
        }),
      }));
    }),
};

export const overload: Rule = {
  code: 'overload',
  severity: 'fault',
  find: (c) => {
    const { topology } = c.solved;
    if (c.design.demands.length === 0) return [];
    const loads = loadsOf(c.solved);
    return topology.ports.flatMap(({ element, rate }, p): Found[] => {
      const percent = Math.round(percentOut(c.solved, loads, p));
      if (percent <= 100) return [];
      const sentence = say.overload({ name: c.portName(element), percent, load: Math.round(loads.out[p]!), rate });
      return [{ subjects: [c.portOf(portById(c.design, element.id) ?? element)], sentence }];
    });
  },
};
