/** What becomes of every bundle of a design: whether it forms, what each member does, and why. */
import { bundleById, farEnd, linkAt, switchById } from '../../design';
import { bundleMessages as say, memberMessages } from '../../messages';
import type { Bundle, Design } from '../../design';
import { minimumAt } from '../lacp-ends';
import { isHalfDuplex, portIsUp, rateAt } from '../link-state';
import { actingDesign, isPeerPort, sharedWith } from './pairs';
import { negotiation } from './negotiating-ends';
import type { EndOutcome } from './negotiating-ends';
import { partnerAt, partnerId } from './partner';
import type { Partner } from './partner';
import { ACTIVE_MEMBERS, speedsByUse } from '../../standard';
import type { MemberState } from './negotiation';

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

/** The partner that most working members lead to; a draw goes to the one met first. */
function mainPartner(design: Design, bundle: Bundle): Partner | null {
  const votes = new Map<string, { partner: Partner; count: number }>();
  for (const member of bundle.members) {
    const partner = partnerAt(design, member);
    if (!partner || (partner.kind === 'bundle' && partner.bundle.id === bundle.id)) continue;
    const weight = portIsUp(design, member) ? 1000 : 1;
    const vote = votes.get(partnerId(partner));
    if (vote) vote.count += weight;
    else votes.set(partnerId(partner), { partner, count: weight });
  }
  return [...votes.values()].sort((a, b) => b.count - a.count)[0]?.partner ?? null;
}

/** Members of a static end: all that are up, in full duplex, and of the speed that most have. */
function staticStates(design: Design, { members }: Bundle): [string, MemberState][] {
  const fit = (id: string) => portIsUp(design, id) && !isHalfDuplex(design, id);
  const [speed] = speedsByUse(members.filter(fit), (id) => rateAt(design, id));
  return members.map((id) => [
    id,
    !portIsUp(design, id) ? 'down' : fit(id) && rateAt(design, id) === speed ? 'active' : 'suspended',
  ]);
}

/** Whether two static ends forward on the same cables; each chooses by its own members. */
function carryAlike(design: Design, far: Bundle, near: ReadonlyMap<string, MemberState>): boolean {
  return staticStates(design, far).every(([id, state]) => {
    const link = linkAt(design, id);
    const end = link && farEnd(link, id);
    const there = end && 'port' in end ? near.get(end.port) : undefined;
    return there === undefined || (there === 'active') === (state === 'active');
  });
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

const farName = (design: Design, partner: Partner | null): string =>
  partner === null
    ? 'the far end'
    : partner.kind === 'bundle'
      ? (switchById(design, partner.bundle.switch)?.name ?? '')
      : partner.host.name;

/** A static end: no protocol checks the other one. */
function judgeStatic(design: Design, bundle: Bundle, partner: Partner | null, members: readonly string[]): Judged {
  const far = farKind(partner);
  const name = farName(design, partner);
  const all = new Map(staticStates(design, bundle));
  const states = members.map((id) => all.get(id)!);
  if (far === 'static') {
    if (partner?.kind === 'bundle' && !carryAlike(design, partner.bundle, all))
      return { outcome: 'one-sided', states, sentence: say['static-unlike']({ far: name }) };
    const active = states.filter((s) => s === 'active').length;
    const speed = rateAt(design, members[states.indexOf('active')] ?? '');
    const own = minimumAt(bundle, speed);
    const needed = partner?.kind === 'bundle' ? minimumAt(partner.bundle, speed) : ACTIVE_MEMBERS.min;
    // The far end is down by its own minimum, and nothing tells this one.
    if (active >= own && active > 0 && active < needed)
      return { outcome: 'one-sided', states, sentence: say['static-far-minimum']({ far: name, active, needed }) };
    return enough(states, own, say['both-static'](), bundle.members.length);
  }
  return { outcome: 'one-sided', states, sentence: say['static-alone']({ far: name, bundled: far !== null }) };
}

/** An end that negotiates: what it came to, and what the far end is that it did not come to anything with. */
function judgeNegotiating(
  design: Design,
  bundle: Bundle,
  partner: Partner | null,
  result: EndOutcome,
): Omit<Judged, 'states'> {
  const kind = farKind(partner);
  const far = farName(design, partner);
  const individual = bundle.individual ?? true;
  if (kind === 'static') return { outcome: 'one-sided', sentence: say['far-static']({ far, individual }) };
  if (partner === null || kind !== bundle.kind) {
    const code = kind === null ? 'no-bundle-there' : 'other-protocol';
    return { outcome: 'unanswered', sentence: say[code]({ far, individual }) };
  }
  if (!result.starts(partnerId(partner)))
    return { outcome: 'never', sentence: say['both-passive']({ individual, lacp: kind === 'lacp' }) };
  if (result.partner !== null && result.elsewhere !== null) {
    const other = nameOf(design, result.elsewhere);
    return { outcome: 'unanswered', sentence: say['partner-elsewhere']({ far, other }) };
  }
  const agreed = result.states.includes('standby')
    ? say['agree-standby']({ decides: result.decides ? 'This end' : far })
    : say.agree();
  const { outcome, sentence } = enough(result.states, result.needed, agreed, bundle.members.length, result.ready);
  return { outcome, sentence };
}

/**
 * Whether as many members are active as the minimum asks; `total` counts all members, also those without a cable, and
 * `ready` those that could be active if they were enough.
 */
function enough(
  states: readonly MemberState[],
  needed: number,
  sentence: string,
  total: number,
  ready = states.filter((s) => s === 'active').length,
): Judged {
  const active = states.filter((s) => s === 'active').length;
  if (active > 0 && active >= needed)
    return { outcome: 'forms', states, sentence: `${sentence} ${say.active({ active, total })}` };
  return {
    outcome: 'too-few',
    states: states.map((s) => (s === 'active' ? 'standby' : s)),
    sentence: ready === 0 ? say['none-ready']() : say['too-few']({ active: ready, total, needed }),
  };
}

const nameOf = (design: Design, partner: Partner): string =>
  partner.kind === 'host'
    ? partner.host.name
    : `bundle ${partner.bundle.name} of ${switchById(design, partner.bundle.switch)?.name ?? ''}`;

/** A static member that leads elsewhere than the others carries all the same. */
function judge(design: Design, bundle: Bundle, partner: Partner | null, belongs: (member: string) => boolean): Judged {
  const { members } = bundle;
  if (bundle.kind !== 'static') {
    const result = negotiation(design).get(bundle.id)!;
    return { ...judgeNegotiating(design, bundle, partner, result), states: result.states };
  }
  const joined = members.filter(belongs);
  const judged = judgeStatic(design, bundle, partner, joined);
  const all = new Map(staticStates(design, bundle));
  const state = (port: string): MemberState =>
    joined.includes(port) ? judged.states[joined.indexOf(port)]! : all.get(port)!;
  return { ...judged, states: members.map(state) };
}

/** The verdict on one bundle. */
export function verdictOn(design: Design, bundle: Bundle): BundleVerdict {
  const partner = negotiation(design).get(bundle.id)?.partner ?? mainPartner(design, bundle);
  const belongs = (member: string) => {
    const found = partnerAt(design, member);
    return partner === null
      ? found === null && linkAt(design, member) !== undefined
      : found !== null && partnerId(found) === partnerId(partner);
  };
  const judged = judge(design, bundle, partner, belongs);
  const members = bundle.members.map((port, i): MemberVerdict => {
    const state = judged.states[i]!;
    const says = memberMessages[state]();
    if (belongs(port)) return { port, state, miscabled: false, sentence: says };
    if (!portIsUp(design, port))
      return { port, state, miscabled: false, sentence: linkAt(design, port) ? says : memberMessages.unplugged() };
    const found = partnerAt(design, port);
    const where = found ? nameOf(design, found) : 'a single port';
    return { port, state, miscabled: true, sentence: `${memberMessages.miscabled({ where })} ${says}` };
  });
  return {
    bundle: bundle.id,
    partner: partner === null ? null : { kind: partner.kind, id: partnerId(partner) },
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
