/** Bundles: what does not come up, what goes down too easily, and what is noticed too late. */
import { bundleById, hostById, portsOf, setField } from '../../design';
import type { Bundle, Design } from '../../design';
import { reviewMessages as say } from '../../messages';
import { actingDesign, isPeerPort, minimumAt, rateAt, verdictOf } from '../../network';
import type { BundleVerdict } from '../../network';
import { canLoseOne, usableMembers } from '../spare-members';
import type { Context, Found, Rule } from './rule';

interface Case {
  /** The design as its partner sees it. */
  readonly on: Design;
  readonly bundle: Bundle;
  readonly verdict: BundleVerdict;
  readonly far: Bundle | undefined;
  readonly active: number;
  readonly ends: { readonly a: string; readonly b: string };
}

/**
 * Bundles with their other end, once for both. Those of both switches of a pair are one, as others see it; the peer link is
 * between the two.
 */
function cases(c: Context): Case[] {
  const done = new Set<string>();
  const acting = actingDesign(c.design);
  return c.design.bundles.flatMap(({ id, members }): Case[] => {
    const on = members.some((m) => isPeerPort(c.design, m)) ? c.design : acting;
    const [bundle, verdict] = [bundleById(on, id), verdictOf(on, id)];
    if (!bundle || !verdict || done.has(id)) return [];
    const far = verdict.partner?.kind === 'bundle' ? bundleById(on, verdict.partner.id) : undefined;
    if (far) done.add(far.id);
    const host = verdict.partner?.kind === 'host' ? hostById(c.design, verdict.partner.id)?.name : undefined;
    const b = far ? c.portName(far) : (host ?? 'no partner');
    const active = verdict.members.filter((m) => m.state === 'active').length;
    return [{ on, bundle, verdict, far, active, ends: { a: c.portName(bundle), b } }];
  });
}

const subjects = (c: Context, { bundle, far }: Case) => [c.portOf(bundle), ...(far ? [c.portOf(far)] : [])];

/** A rule over bundles: a sentence for each at fault, or null. */
const rule = (
  code: string,
  severity: Rule['severity'],
  sentence: (one: Case, c: Context) => string | null,
  fix?: (one: Case, c: Context) => Found['fix'],
): Rule => ({
  code,
  severity,
  find: (c) =>
    cases(c).flatMap((one): Found[] => {
      const text = sentence(one, c);
      if (text === null) return [];
      const mend = fix?.(one, c);
      return [{ subjects: subjects(c, one), sentence: text, ...(mend ? { fix: mend } : {}) }];
    }),
});

const bothEnds = (
  { bundle, far }: Case,
  field: keyof Bundle & string,
  value: unknown,
  label: string,
): Found['fix'] => ({
  label,
  edits: [bundle, far].flatMap((b) => (b ? [setField('bundle', b.id, field, value)] : [])),
});

const againstEachOther = ({ bundle, far }: Case): boolean =>
  far !== undefined && (bundle.kind === 'static') !== (far.kind === 'static');

export const bundleDown = rule(
  'bundle-down',
  'fault',
  (one) =>
    one.verdict.outcome === 'forms' || againstEachOther(one)
      ? null
      : say['bundle-down']({ ...one.ends, why: one.verdict.sentence }),
  (one) => (one.verdict.outcome === 'never' ? bothEnds(one, 'activity', null, 'Make both ends active') : undefined),
);
export const bundleAgainst = rule(
  'bundle-against',
  'fault',
  (one) =>
    againstEachOther(one)
      ? say['bundle-against'](one.bundle.kind === 'static' ? one.ends : { a: one.ends.b, b: one.ends.a })
      : null,
  (one) => bothEnds(one, 'kind', 'lacp', 'LACP at both ends'),
);
export const bundleOneCable = rule('bundle-one-cable', 'risk', (one) =>
  one.verdict.outcome === 'forms' && usableMembers(one.on, one.bundle).length === 1
    ? say['bundle-one-cable'](one.ends)
    : null,
);
export const bundleStatic = rule(
  'bundle-static',
  'remark',
  (one) => (one.bundle.kind === 'static' && !againstEachOther(one) ? say['bundle-static'](one.ends) : null),
  (one) => bothEnds(one, 'kind', 'lacp', 'LACP at both ends'),
);
export const bundleOdd = rule('bundle-odd', 'remark', (one) =>
  one.active > 2 && 8 % one.active !== 0 ? say['bundle-odd']({ ...one.ends, members: one.active }) : null,
);
export const bundleMinimum = rule('bundle-minimum', 'risk', ({ on, bundle, far, verdict, ends }) => {
  const usable = usableMembers(on, bundle);
  const own = [bundle, ...(far ? [far] : [])];
  if (verdict.outcome !== 'forms' || usable.length < 2 || own.every((b) => canLoseOne(on, b))) return null;
  const minimum = Math.max(...own.map((b) => minimumAt(b, rateAt(on, usable[0]!))));
  return say['bundle-minimum']({ ...ends, minimum });
});
export const bundleSlow = rule(
  'bundle-slow',
  'remark',
  ({ bundle, far, ends }) =>
    bundle.kind === 'lacp' && far?.kind === 'lacp' && [bundle, far].some((b) => b.timeout !== 'short')
      ? say['bundle-slow'](ends)
      : null,
  (one) => bothEnds(one, 'timeout', 'short', 'Short timeout at both ends'),
);

/** Members of all bundles, at each end by itself. */
const members = (
  code: string,
  sentence: (m: BundleVerdict['members'][number], bundle: string, name: string) => string | null,
): Rule => ({
  code,
  severity: 'fault',
  find: (c) =>
    c.design.bundles.flatMap((bundle): Found[] =>
      (c.verdicts.get(bundle.id)?.members ?? []).flatMap((m): Found[] => {
        const port = portsOf(c.design, bundle.switch).find((p) => p.id === m.port);
        const text = port && sentence(m, c.portName(bundle), c.portName(port));
        return text ? [{ subjects: [c.portOf(port)], sentence: text }] : [];
      }),
    ),
});
export const memberMiscabled = members('member-miscabled', (m, bundle, name) =>
  m.miscabled ? say['member-miscabled']({ name, bundle }) : null,
);
export const memberSuspended = members('member-suspended', (m, bundle, name) =>
  !m.miscabled && (m.state === 'suspended' || m.state === 'down')
    ? say['member-suspended']({ name, bundle, why: m.sentence })
    : null,
);
