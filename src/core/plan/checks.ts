/** What to see after a step before going on, and what to do if it is not so. */
import { bundleById, hostById, switchById } from '../design';
import type { Design } from '../design';
import { planMessages as say, seeMessages as see } from '../messages';
import { OUTCOME_WORDS, verdictOf } from '../network';
import { treeNames } from '../trace';
import type { MovedPort, MovedTree, Role } from '../trees';
import type { Rest } from './effect';
import type { Work } from './gather';

/** Ports that are listed; of more, the number is said. */
const MOST_PORTS = 4;

/** Names of trees of a network at rest, with the VLANs of each. */
export const treesOfRest = ({ solved }: Rest, trees: readonly string[]): string =>
  treeNames(trees, (tree) => solved.byId.get(tree)?.tree.vlans ?? []);

function groups<T>(items: readonly T[], keyOf: (item: T) => string): T[][] {
  const found = new Map<string, T[]>();
  for (const item of items) found.set(keyOf(item), [...(found.get(keyOf(item)) ?? []), item]);
  return [...found.values()];
}

const stateWords = (role: Role): string =>
  role === 'disabled' || role === 'none'
    ? 'no role'
    : role === 'alternate' || role === 'backup'
      ? `${role}, discarding`
      : `${role}, forwarding`;

/** Roots that are others than before, a line for each switch. */
function rootLines(after: Rest, moved: readonly MovedTree[]): string[] {
  const { design } = after.solved.topology;
  const changed = moved.filter((t) => t.rootBefore !== t.rootAfter);
  return groups(changed, (t) => t.rootAfter ?? '').map((own) => {
    const trees = treesOfRest(
      after,
      own.map((t) => t.tree),
    );
    const name = switchById(design, own[0]!.rootAfter ?? '')?.name;
    return name === undefined ? see['see-no-root']({ trees }) : see['see-root']({ name, trees });
  });
}

/** Ports that have another role: those of the device first. */
function portLines(after: Rest, moved: readonly MovedTree[], device: string | null): string[] {
  const all = moved.flatMap((t) => t.ports.map((port): MovedPort & { tree: string } => ({ ...port, tree: t.tree })));
  const lines = groups(all, (p) => `${p.id} ${p.after}`).sort(
    (a, b) => Number(b[0]!.switch === device) - Number(a[0]!.switch === device),
  );
  return [
    ...lines.slice(0, MOST_PORTS).map((own) =>
      see['see-port']({
        port: own[0]!.name,
        role: stateWords(own[0]!.after),
        trees: treesOfRest(
          after,
          own.map((p) => p.tree),
        ),
      }),
    ),
    ...(lines.length > MOST_PORTS ? [see['see-more-ports']({ n: lines.length - MOST_PORTS })] : []),
  ];
}

/** Bundles that a piece of work makes, changes or gives a member. */
function bundleLines(design: Design, work: Work): string[] {
  const own = new Set(
    work.edits.flatMap((e) =>
      e.type !== 'settings' && e.kind === 'bundle' ? [e.type === 'add' ? e.value.id : e.id] : [],
    ),
  );
  const plugged = work.edits.flatMap((e) =>
    e.type === 'add' && e.kind === 'link' ? [e.value.a, e.value.b].map((end) => (end as { port?: string }).port) : [],
  );
  for (const b of design.bundles) if (b.members.some((m) => plugged.includes(m))) own.add(b.id);
  return [...own].flatMap((id) => {
    const [bundle, verdict] = [bundleById(design, id), verdictOf(design, id)];
    if (!bundle || !verdict) return [];
    return see['see-bundle']({
      bundle: `${switchById(design, bundle.switch)?.name} ${bundle.name}`,
      state: OUTCOME_WORDS[verdict.outcome],
      active: verdict.members.filter((m) => m.state === 'active').length,
      of: verdict.members.length,
    });
  });
}

export interface Checks {
  readonly see: readonly string[];
  readonly otherwise: string;
}

/** What is to be seen when a piece of work is done. */
export function checksOf(work: Work, after: Rest, moved: readonly MovedTree[]): Checks {
  const { design } = after.solved.topology;
  const bundles = bundleLines(design, work);
  const roots = rootLines(after, moved);
  const ports = portLines(after, moved, work.device);
  const seen = [...bundles, ...roots, ...ports];
  return { see: seen.length > 0 ? seen : [see['see-nothing']()], otherwise: otherwise(work, after, moved, bundles) };
}

function otherwise(work: Work, after: Rest, moved: readonly MovedTree[], bundles: readonly string[]): string {
  const { design } = after.solved.topology;
  if (bundles.length > 0) return say['else-bundle']();
  if (work.kind === 'mode' || work.kind === 'region') return say['else-mode']();
  const held = moved.flatMap((t) => t.ports).filter((p) => p.after === 'alternate' || p.after === 'backup');
  const names = [...new Set(held.map((p) => p.name))].slice(0, 2);
  const root = moved.find((t) => t.rootBefore !== t.rootAfter && t.rootAfter !== null);
  if (root) return say['else-root']({ name: switchById(design, root.rootAfter!)!.name });
  if (names.length > 0) return say['else-loop']({ ports: names.join(' or ') });
  return work.kind === 'cable' ? say['else-cable']() : say['else-back']();
}

/** `gate`, `quay-a – gate` of a cable: where a piece of work is done. */
export function workedAt(before: Design, after: Design, { kind, device, other }: Work): string {
  const names = [device, ...(other === null ? [] : [other])].map((id) => deviceName(before, after, id));
  return names.join(kind === 'cable' ? ' – ' : ' and ');
}

/** Name of what is worked at. */
export const deviceName = (before: Design, after: Design, id: string | null): string => {
  if (id === null) return 'every switch';
  for (const d of [after, before]) {
    const found = switchById(d, id) ?? hostById(d, id);
    if (found) return found.name;
  }
  return id;
};
