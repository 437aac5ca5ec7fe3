/** Taking a switch, a link or a bundle out of service and putting it back: with a drain before, where that helps. */
import { bundleById, linkAt, linkById, portById, setField, switchById } from '../design';
import type { Design, Edit } from '../design';
import { seeMessages as see } from '../messages';
import { portsOfLink } from '../review';
import { forwardsRole } from '../trees';
import type { Rest } from './effect';
import { restOf } from './effect';
import type { Work } from './gather';
import { drain, stepDown } from './helpers';
import type { Helper } from './helpers';
import { planArranged } from './plan';
import type { PlanOptions, PlanStep, Planned } from './plan';
import { compareCost } from './rank';

/** What is taken out. */
export interface Target {
  readonly kind: 'switch' | 'link' | 'bundle';
  readonly id: string;
}

const linksOfBundle = (design: Design, id: string): string[] =>
  (bundleById(design, id)?.members ?? []).flatMap((m) => linkAt(design, m)?.id ?? []);

function outEdits(design: Design, { kind, id }: Target, out: boolean): Edit[] {
  const value = out ? true : null;
  if (kind === 'switch') return [setField('switch', id, 'off', value)];
  const links = kind === 'link' ? [id] : linksOfBundle(design, id);
  return links.map((link) => setField('link', link, 'down', value));
}

function work(design: Design, target: Target, out: boolean): Work {
  const [port] = target.kind === 'link' ? portsOfLink(linkById(design, target.id)) : [];
  const device =
    target.kind === 'switch'
      ? target.id
      : target.kind === 'bundle'
        ? (bundleById(design, target.id)?.switch ?? null)
        : (portById(design, port ?? '')?.switch ?? null);
  return {
    id: out ? 'out' : 'back',
    kind: target.kind === 'switch' ? 'power' : 'cable',
    device,
    other: null,
    edits: outEdits(design, target, out),
  };
}

/** Whether frames still pass what is taken out: in some tree both ends of a link of it forward, or two links of a switch. */
export function stillPasses({ solved }: Rest, design: Design, { kind, id }: Target): boolean {
  const links = kind === 'link' ? [id] : kind === 'bundle' ? linksOfBundle(design, id) : linksAt(design, id);
  const indexOf = (port: string) => {
    const bundle = design.bundles.find((b) => b.members.includes(port));
    return solved.topology.portIndex.get(bundle?.id ?? port) ?? -1;
  };
  return solved.trees.some(({ outcome }) => {
    const open = links.filter((l) =>
      portsOfLink(linkById(design, l)).every((p) => forwardsRole(outcome.role[indexOf(p)])),
    );
    return open.length > (kind === 'switch' ? 1 : 0);
  });
}

const linksAt = (design: Design, at: string): string[] =>
  design.links.flatMap((l) => {
    const ports = portsOfLink(l);
    return ports.length === 2 && ports.some((p) => portById(design, p)?.switch === at) ? [l.id] : [];
  });

const nameOf = (design: Design, { kind, id }: Target): string => {
  if (kind === 'switch') return switchById(design, id)?.name ?? id;
  const ports =
    kind === 'bundle' ? (bundleById(design, id)?.members.slice(0, 1) ?? []) : portsOfLink(linkById(design, id));
  return ports
    .map((p) => portById(design, p))
    .map((p) => `${switchById(design, p?.switch ?? '')?.name} ${p?.name}`)
    .join(' – ');
};

/** The last step of the drain says what to see: that nothing passes, or that something has no other way. */
function withEmpty(steps: readonly PlanStep[], design: Design, target: Target): PlanStep[] {
  const last = steps.findIndex((s) => s.work.id === 'out') - 1;
  return steps.map((s, i) => {
    if (i !== last) return s;
    const name = nameOf(design, target);
    const passes = stillPasses(restOf(s.after), design, target);
    return { ...s, see: [...s.see, passes ? see['see-no-other-way']({ name }) : see['see-empty']({ name })] };
  });
}

/** Ways to prepare: it is made dear, it is made the last that would be root, or both. */
function preparations(out: Work, design: Design): Helper[] {
  const [dear, last] = [drain([out], design, design, 0), stepDown([out], design, design, 0)];
  const both =
    dear && last ? [{ ...dear, before: [...last.before, ...dear.before], after: [...dear.after, ...last.after] }] : [];
  return [dear, last, ...both].filter((h) => h !== null);
}

/** The plan that interrupts least: prepared in one of the ways that there are, or not at all. */
export function planMaintenance(design: Design, target: Target, options: PlanOptions = {}): Planned {
  const [out, back] = [work(design, target, true), work(design, target, false)];
  const plain = planArranged(design, design, [out, back], options);
  if (options.temporary === false) return plain;
  const prepared = preparations(out, design).flatMap(({ before, after }) => {
    const planned = planArranged(design, design, [...before, out, back, ...after], options);
    return planned.ok ? [planned.plan] : [];
  });
  const [best] = prepared.sort((a, b) => compareCost(a.cost, b.cost));
  if (!best) return plain;
  if (plain.ok && compareCost(plain.plan.cost, best.cost) <= 0) return plain;
  const table = plain.ok ? { table: plain.plan.cost } : {};
  return { ok: true, plan: { ...best, steps: withEmpty(best.steps, design, target), ...table } };
}
