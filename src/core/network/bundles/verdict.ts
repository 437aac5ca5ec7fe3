/** What becomes of every bundle of a design: whether it forms, what each member does, and why. */
import { bundleAt, bundleById, farEnd, hostById, linkAt, switchById } from '../../design';
import { bundleMessages as say, memberMessages } from '../../messages';
import type { Bundle, Design, Host } from '../../design';
import { bundleLacpEnd, hostLacpEnd } from '../lacp-ends';
import { portIsUp } from '../link-state';
import type { LacpEndSettings } from '../lacp-ends';
import { actingDesign, isPeerPort, sharedWith } from './pairs';
import { negotiate, somebodyStarts } from './negotiation';
import type { MemberState, PlannedEnd } from './negotiation';

export interface MemberVerdict {
  readonly port: string;
  readonly state: MemberState;
  /** Leads somewhere else than the other members do. */
  readonly miscabled: boolean;
  readonly sentence: string;
}

export type Outcome =
  /** Both ends act as one port. */
  | 'forms'
  /** The ends agree, but fewer members are active than the minimum of one end, or none is up. */
  | 'too-few'
  /** Both ends are passive. */
  | 'never'
  /** One end forwards on every member without the other: spanning tree does not detect it. */
  | 'one-sided'
  /** The other end has no bundle there, or one of another kind: members are individual or stay down. */
  | 'unanswered';

/** Outcomes as they are shown. */
export const OUTCOME_WORDS: Record<Outcome, string> = {
  forms: 'up',
  'too-few': 'down, too few members',
  never: 'never comes up',
  'one-sided': 'up at one end only',
  unanswered: 'no partner',
};

export interface BundleVerdict {
  readonly bundle: string;
  /** The bundle or the host that most working members lead to. */
  readonly partner: { readonly kind: 'bundle' | 'host'; readonly id: string } | null;
  readonly outcome: Outcome;
  readonly sentence: string;
  readonly members: readonly MemberVerdict[];
}

type Partner = { readonly kind: 'bundle'; readonly bundle: Bundle } | { readonly kind: 'host'; readonly host: Host };

/** Where a member's cable ends: in a bundle, at a host, at a single port, or nowhere. */
function partnerAt(design: Design, port: string): Partner | null {
  const link = linkAt(design, port);
  if (!link) return null;
  const far = farEnd(link, port);
  if ('host' in far) {
    const host = hostById(design, far.host);
    return host ? { kind: 'host', host } : null;
  }
  const bundle = bundleAt(design, far.port);
  return bundle ? { kind: 'bundle', bundle } : null;
}

const idOf = (p: Partner): string => (p.kind === 'bundle' ? p.bundle.id : p.host.id);

/** The partner that most working members lead to; a draw goes to the one met first. */
function mainPartner(design: Design, bundle: Bundle): Partner | null {
  const votes = new Map<string, { partner: Partner; count: number }>();
  for (const member of bundle.members) {
    const partner = partnerAt(design, member);
    if (!partner || (partner.kind === 'bundle' && partner.bundle.id === bundle.id)) continue;
    const weight = portIsUp(design, member) ? 1000 : 1;
    const vote = votes.get(idOf(partner));
    if (vote) vote.count += weight;
    else votes.set(idOf(partner), { partner, count: weight });
  }
  return [...votes.values()].sort((a, b) => b.count - a.count)[0]?.partner ?? null;
}

const plannedFrom = ({ ports, ...settings }: LacpEndSettings): PlannedEnd => ({ ...settings, members: ports });

/** An end with the given members, as the negotiation sees it. */
export const planned = (design: Design, bundle: Bundle, members: readonly string[]): PlannedEnd =>
  plannedFrom(bundleLacpEnd(design, bundle, members));

/** A host's cards as the other end. */
const plannedHost = (design: Design, host: Host, members: readonly string[]): PlannedEnd =>
  plannedFrom(hostLacpEnd(design, host, members));

/** Members of a static end: all that are up and of the speed that most have. */
function staticStates(end: PlannedEnd): MemberState[] {
  const willing = {
    ...end,
    minActive: 1,
    maxActive: end.members.length || 1,
    individual: false,
    activity: 'active' as const,
  };
  return negotiate(willing, willing)[0];
}

interface Judged {
  readonly outcome: Outcome;
  readonly states: readonly MemberState[];
  readonly sentence: string;
}

const farKind = (partner: Partner | null): 'lacp' | 'static' | 'own' | null =>
  partner === null
    ? null
    : partner.kind === 'bundle'
      ? partner.bundle.kind
      : partner.host.bond === undefined
        ? null
        : partner.host.bond === 'static'
          ? 'static'
          : 'lacp';

const alone = (end: PlannedEnd): MemberState[] =>
  end.members.map((m) => (!m.up ? 'down' : end.individual ? 'individual' : 'suspended'));

const farName = (design: Design, partner: Partner | null): string =>
  partner === null
    ? 'the far end'
    : partner.kind === 'bundle'
      ? (switchById(design, partner.bundle.switch)?.name ?? '')
      : partner.host.name;

/** A static end: no protocol checks the other one. */
function judgeStatic(near: PlannedEnd, partner: Partner | null, name: string, total: number): Judged {
  const far = farKind(partner);
  const states = staticStates(near);
  if (far === 'static') {
    const active = states.filter((s) => s === 'active').length;
    const needed = partner?.kind === 'bundle' ? (partner.bundle.minActive ?? 1) : 1;
    // The far end is down by its own minimum, and nothing tells this one.
    if (active >= near.minActive && active > 0 && active < needed)
      return { outcome: 'one-sided', states, sentence: say['static-far-minimum']({ far: name, active, needed }) };
    return enough(states, near.minActive, say['both-static'](), total);
  }
  return { outcome: 'one-sided', states, sentence: say['static-alone']({ far: name, bundled: far !== null }) };
}

/** Every combination of kinds, and for those that negotiate what they agree on. */
function judge(design: Design, bundle: Bundle, partner: Partner | null, members: readonly string[]): Judged {
  const near = planned(design, bundle, members);
  const kind = farKind(partner);
  const far = farName(design, partner);
  const total = bundle.members.length;
  if (bundle.kind === 'static') return judgeStatic(near, partner, far, total);
  const unanswered = { far, individual: near.individual };
  if (kind === 'static') return { outcome: 'one-sided', states: alone(near), sentence: say['far-static'](unanswered) };
  if (partner === null || kind !== bundle.kind) {
    const code = kind === null ? 'no-bundle-there' : 'other-protocol';
    return { outcome: 'unanswered', states: alone(near), sentence: say[code](unanswered) };
  }
  const other =
    partner.kind === 'bundle'
      ? planned(
          design,
          partner.bundle,
          members.map((id) => (farEnd(linkAt(design, id)!, id) as { port: string }).port),
        )
      : plannedHost(design, partner.host, members);
  const [states] = negotiate(near, other);
  if (!somebodyStarts(near, other))
    return {
      outcome: 'never',
      states,
      sentence: say['both-passive']({ individual: near.individual, lacp: kind === 'lacp' }),
    };
  const order = near.systemPriority - other.systemPriority || near.system - other.system;
  const agreed = states.includes('standby')
    ? say['agree-standby']({ decides: order <= 0 ? 'This end' : far })
    : say.agree();
  return enough(states, Math.max(near.minActive, other.minActive), agreed, total);
}

/** Whether as many members are active as the minimum asks; `total` counts all members, also those without a cable. */
function enough(states: readonly MemberState[], needed: number, sentence: string, total: number): Judged {
  const active = states.filter((s) => s === 'active').length;
  if (active > 0 && active >= needed)
    return { outcome: 'forms', states, sentence: `${sentence} ${say.active({ active, total })}` };
  return {
    outcome: 'too-few',
    states: states.map((s) => (s === 'active' ? 'standby' : s)),
    sentence: active === 0 ? say['none-ready']() : say['too-few']({ active, total, needed }),
  };
}

/** The verdict on one bundle. */
export function verdictOn(design: Design, bundle: Bundle): BundleVerdict {
  const partner = mainPartner(design, bundle);
  const belongs = (member: string) => {
    const found = partnerAt(design, member);
    return partner === null
      ? found === null && linkAt(design, member) !== undefined
      : found !== null && idOf(found) === idOf(partner);
  };
  const joined = bundle.members.filter(belongs);
  const judged = judge(design, bundle, partner, joined);
  const members = bundle.members.map((port): MemberVerdict => {
    const at = joined.indexOf(port);
    if (at >= 0)
      return { port, state: judged.states[at]!, miscabled: false, sentence: memberMessages[judged.states[at]!]() };
    const up = portIsUp(design, port);
    if (!up)
      return {
        port,
        state: 'down',
        miscabled: false,
        sentence: linkAt(design, port) ? memberMessages.down() : memberMessages.unplugged(),
      };
    const found = partnerAt(design, port);
    const where =
      found === null
        ? 'a single port'
        : found.kind === 'bundle'
          ? `bundle ${found.bundle.name} of ${switchById(design, found.bundle.switch)?.name}`
          : found.host.name;
    const heard = found !== null && farKind(found) === bundle.kind && bundle.kind !== 'static';
    const state: MemberState =
      bundle.kind === 'static'
        ? 'active'
        : heard
          ? 'suspended'
          : (bundle.individual ?? true)
            ? 'individual'
            : 'suspended';
    return {
      port,
      state,
      miscabled: true,
      sentence: `${memberMessages.miscabled({ where })} ${memberMessages[state]()}`,
    };
  });
  return {
    bundle: bundle.id,
    partner: partner === null ? null : { kind: partner.kind, id: idOf(partner) },
    outcome: judged.outcome,
    sentence: judged.sentence,
    members,
  };
}

/** The verdict of a folded end, as one of the two bundles that make it up has it. */
function partOf(whole: BundleVerdict, bundle: Bundle): BundleVerdict {
  return { ...whole, bundle: bundle.id, members: whole.members.filter((m) => bundle.members.includes(m.port)) };
}

function judgeAll(design: Design): readonly BundleVerdict[] {
  const acting = actingDesign(design);
  if (acting === design) return design.bundles.map((b) => verdictOn(design, b));
  const of = new Map(bundleVerdicts(acting).map((v) => [v.bundle, v]));
  return design.bundles.map((b) => {
    // A peer link is inside what others take for one switch: its bundle is judged as the two see it.
    if (b.members.length > 0 && b.members.every((m) => isPeerPort(design, m))) return verdictOn(design, b);
    const whole = of.get(b.id) ?? of.get(sharedWith(design, b)?.id ?? '');
    return whole ? partOf(whole, b) : verdictOn(design, b);
  });
}

const known = new WeakMap<Design, readonly BundleVerdict[]>();

/** The verdict on every bundle of a design, in its order; remembered as long as the design lives. */
export function bundleVerdicts(design: Design): readonly BundleVerdict[] {
  let verdicts = known.get(design);
  if (!verdicts) known.set(design, (verdicts = judgeAll(design)));
  return verdicts;
}

export const verdictOf = (design: Design, id: string): BundleVerdict | undefined =>
  bundleById(design, id) ? bundleVerdicts(design).find((v) => v.bundle === id) : undefined;
