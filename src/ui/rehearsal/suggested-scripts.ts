/** Whole scripts that are worth rehearsing on a network, each with its events in place. */
import { farEnd, isClassicMode, linkAt, modeOf, portsOf, switchById } from '../../core/design';
import type { Design, Script, ScriptEvent } from '../../core/design';
import { rootsOf } from '../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { treeTitle } from '../controls/tree-names';
import type { Ref } from '../session/view';

export type SuggestedScript = Pick<Script, 'name' | 'until' | 'events'>;

/** First event, in seconds: what stands before it is seen. */
const FIRST = 5;
/** Seconds that a network of each kind gets to come to rest after an event. */
const REST = { rapid: 10, classic: 60 } as const;

type Untimed = Omit<ScriptEvent, 'id' | 'at'>;

/** One event after another, each with time to come to rest. */
function inTurn(name: string, rest: number, events: readonly Untimed[]): SuggestedScript {
  return {
    name,
    until: FIRST + rest * events.length,
    events: events.map((event, i) => ({ ...event, id: `e${i + 1}`, at: FIRST + i * rest }) as ScriptEvent),
  };
}

const downAndUp = (link: string): Untimed[] => [
  { kind: 'link-down', link } as Untimed,
  { kind: 'link-up', link } as Untimed,
];

/** Links of a switch that lead to other switches. */
function uplinksOf(design: Design, id: string): string[] {
  const links = portsOf(design, id).flatMap((p) => {
    const link = linkAt(design, p.id);
    return link && 'port' in farEnd(link, p.id) ? [link.id] : [];
  });
  return [...new Set(links)];
}

/** One cabled member of each bundle; the two ends of a bundle have the same cables. */
function oneMemberEach(design: Design): string[] {
  const seen = new Set<string>();
  return design.bundles.flatMap(({ members }) => {
    const links = members.flatMap((m) => linkAt(design, m)?.id ?? []);
    const fresh = !links.some((l) => seen.has(l));
    for (const l of links) seen.add(l);
    return fresh && links[0] !== undefined ? [links[0]] : [];
  });
}

/** All switches lose power, and come back at the same moment. */
function powerReturns(design: Design, rest: number): SuggestedScript {
  const all = design.switches.filter((s) => !s.off);
  const at = (kind: 'switch-off' | 'switch-on', seconds: number) =>
    all.map(({ id }, i) => ({ id: `${kind}-${i}`, at: seconds, kind, switch: id }));
  return {
    name: 'power returns everywhere',
    until: FIRST + 2 + 2 * rest,
    events: [...at('switch-off', FIRST), ...at('switch-on', FIRST + 2)],
  };
}

/** What is worth rehearsing: the root of the tree in view, the uplinks of selected switches, members of bundles, power. */
export function suggestedScripts(
  solved: SolvedDesign,
  of: SolvedTree | null,
  selection: readonly Ref[],
): SuggestedScript[] {
  const { design } = solved.topology;
  const rest = design.switches.some((s) => isClassicMode(modeOf(design, s))) ? REST.classic : REST.rapid;
  const [root] = of ? rootsOf(of) : [];
  const rootId = root === undefined ? undefined : design.switches[root]!.id;
  const picked = selection.flatMap((r) => (r.kind === 'switch' && switchById(design, r.id) ? [r.id] : []));
  const uplinks = picked.flatMap((id) => uplinksOf(design, id));
  const members = oneMemberEach(design);
  const names = picked.map((id) => switchById(design, id)!.name).join(', ');
  return [
    ...(rootId && of
      ? [
          inTurn(`root of ${treeTitle(of.tree)} fails`, rest, [
            { kind: 'switch-off', switch: rootId } as Untimed,
            { kind: 'switch-on', switch: rootId } as Untimed,
          ]),
        ]
      : []),
    ...(uplinks.length > 0 ? [inTurn(`each uplink of ${names}`, rest, uplinks.flatMap(downAndUp))] : []),
    ...(members.length > 0 ? [inTurn('a member of each bundle', rest, members.flatMap(downAndUp))] : []),
    ...(design.switches.length > 0 ? [powerReturns(design, rest)] : []),
  ];
}
