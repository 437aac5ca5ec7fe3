/** Edge ports, filters and guards: where they are missing, and where they do harm. */
import { bundleById, groupBy, hasBpduGuard, hasSilenceGuard, isFiltered, setField } from '../../design';
import type { Bundle, Port } from '../../design';
import { treeWords } from '../../goals';
import { reviewMessages as say } from '../../messages';
import { ROLE, loopingPorts, rootsOf } from '../../trees';
import type { SolvedTree } from '../../trees';
import type { Context, Found, Rule } from './rule';

/** One finding at a port or bundle, with the setting that mends it. */
const at = (
  c: Context,
  element: Port | Bundle,
  sentence: string,
  words: string,
  field: 'edge' | 'bpduGuard' | 'bpduFilter' | 'rootGuard' | 'loopGuard',
  value: true | null,
): Found => ({
  subjects: [c.portOf(element)],
  sentence,
  fix: {
    label: `${words} at ${c.portName(element)}`,
    edits: [setField('members' in element ? 'bundle' : 'port', element.id, field, value)],
  },
});

/** Ends of cables between switches, each with the other end; of bundles one for each end. */
function ends(c: Context): { own: Port | Bundle; far: Port | Bundle }[] {
  const seen = new Set<string>();
  return c.joints.flatMap(({ a, b }) =>
    [
      { own: c.acting(a), far: c.acting(b) },
      { own: c.acting(b), far: c.acting(a) },
    ].filter(({ own }) => !seen.has(own.id) && seen.add(own.id)),
  );
}

export const edgeToSwitch: Rule = {
  code: 'edge-to-switch',
  severity: 'fault',
  find: (c) =>
    ends(c).flatMap(({ own, far }): Found[] =>
      own.edge
        ? [at(c, own, say['edge-to-switch']({ a: c.portName(own), b: c.portName(far) }), 'No edge port', 'edge', null)]
        : [],
    ),
};

/** Ports to hosts, once each where they are bundled. */
function hostEnds(c: Context): { own: Port | Bundle; host: string }[] {
  const seen = new Set<string>();
  return c.hostPorts
    .map(({ port, host }) => ({ own: c.acting(port), host }))
    .filter(({ own }) => !seen.has(own.id) && seen.add(own.id));
}

export const hostNotEdge: Rule = {
  code: 'host-not-edge',
  severity: 'remark',
  find: (c) =>
    hostEnds(c).flatMap(({ own, host }): Found[] =>
      own.edge || own.autoEdge
        ? []
        : [
            at(
              c,
              own,
              say['host-not-edge']({ name: c.portName(own), host: c.hostName(host) }),
              'Edge port',
              'edge',
              true,
            ),
          ],
    ),
};

export const hostNoGuard: Rule = {
  code: 'host-no-guard',
  severity: 'risk',
  find: (c) =>
    hostEnds(c).flatMap(({ own, host }): Found[] =>
      // With a filter BPDUs are dropped: nothing that is plugged in there can become root.
      hasBpduGuard(c.design, own) || own.rootGuard || isFiltered(c.design, own)
        ? []
        : [
            at(
              c,
              own,
              say['host-no-guard']({ name: c.portName(own), host: c.hostName(host) }),
              'BPDU guard',
              'bpduGuard',
              true,
            ),
          ],
    ),
};

export const filterLoops: Rule = {
  code: 'filter-loops',
  severity: 'fault',
  find: (c) => {
    const { topology } = c.solved;
    const looping = c.solved.trees.flatMap((of) =>
      [...loopingPorts(topology, of)]
        .filter((p) => isFiltered(c.design, topology.ports[p]!.element))
        .map((p) => ({ p, of })),
    );
    return [...groupBy(looping, ({ p }) => p)].map(([p, group]): Found => {
      const { element } = topology.ports[p]!;
      const of = treeWords(group.map((g) => g.of.tree));
      const sentence = say['filter-loops']({ name: c.portName(element), of });
      return at(c, element, sentence, 'No BPDU filter', 'bpduFilter', null);
    });
  },
};

export const filterToSwitch: Rule = {
  code: 'filter-to-switch',
  severity: 'risk',
  find: (c) =>
    ends(c).flatMap(({ own, far }): Found[] =>
      isFiltered(c.design, own)
        ? [
            at(
              c,
              own,
              say['filter-to-switch']({ a: c.portName(own), b: c.portName(far) }),
              'No BPDU filter',
              'bpduFilter',
              null,
            ),
          ]
        : [],
    ),
};

const tierOf = (c: Context, at: Port | Bundle) => c.design.switches.find((s) => s.id === at.switch)?.tier;

/** Whether a port leads down in every tree: towards nothing that is root or on the way to it. */
const leadsDown = (c: Context, element: Port | Bundle): boolean => {
  const port = c.solved.topology.portIndex.get(element.id);
  return (
    port !== undefined &&
    c.solved.trees.every(({ outcome: { role } }) => role[port] === ROLE.designated || role[port] === ROLE.none)
  );
};

export const rootGuardMissing: Rule = {
  code: 'root-guard-missing',
  severity: 'remark',
  find: (c) =>
    ends(c).flatMap(({ own, far }): Found[] => {
      const [near, below] = [tierOf(c, own), tierOf(c, far)];
      if (below !== 'access' || near === 'access' || near === undefined || own.rootGuard || !leadsDown(c, own))
        return [];
      const sentence = say['root-guard-missing']({ a: c.portName(own), b: c.portName(far) });
      return [at(c, own, sentence, 'Root guard', 'rootGuard', true)];
    }),
};

export const rootGuardOnRootPort: Rule = {
  code: 'root-guard-on-root-port',
  severity: 'fault',
  find: (c) => {
    const { topology, trees } = c.solved;
    return topology.ports.flatMap(({ element }, p): Found[] => {
      if (!element.rootGuard) return [];
      const held = trees.filter((of) => isHeld(of, p));
      if (held.length === 0) return [];
      const of = treeWords(held.map((h) => h.tree));
      const sentence = say['root-guard-on-root-port']({ name: c.portName(element), of });
      return [at(c, element, sentence, 'No root guard', 'rootGuard', null)];
    });
  },
};

/** A guarded port that hears a better root than its own switch has, or is blocked though no other port of it leads up. */
function isHeld({ topology, outcome }: SolvedTree, port: number): boolean {
  if (outcome.role[port] !== ROLE.alternate) return false;
  const own = topology.portBridge[port]!;
  const designated = outcome.designatedPort[topology.portLan[port]!]!;
  const far = designated === undefined || designated < 0 ? -1 : topology.portBridge[designated]!;
  return far >= 0 && outcome.rank[outcome.root[far]!]! < outcome.rank[outcome.root[own]!]!;
}

export const loopGuardMissing: Rule = {
  code: 'loop-guard-missing',
  severity: 'remark',
  find: (c) => {
    const { topology, trees } = c.solved;
    if (trees.every((of) => rootsOf(of).length === 0)) return [];
    return topology.ports.flatMap(({ element }, p): Found[] => {
      const members = bundleById(c.design, element.id)?.members ?? [element.id];
      const detected = members.some((m) => c.design.ports.find((port) => port.id === m)?.oneWay);
      if (element.loopGuard || hasSilenceGuard(c.design, element) || detected) return [];
      const blocked = trees.filter(({ outcome: { role } }) => role[p] === ROLE.alternate);
      if (blocked.length === 0) return [];
      const of = treeWords(blocked.map((b) => b.tree));
      const sentence = say['loop-guard-missing']({ name: c.portName(element), of });
      return [at(c, element, sentence, 'Loop guard', 'loopGuard', true)];
    });
  },
};
