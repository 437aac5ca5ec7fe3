/** What the two switches of a pair must have alike, and whether they do. */
import { linkById, modeOf, portById, switchById } from '../../design';
import type { Bundle, Design, Switch, SwitchPair } from '../../design';
import { LACP_PRIORITY, formatVlanRanges, vlanMembership } from '../../standard';
import { BUNDLE_KIND_WORDS, GLOSSARY, MODE_WORDS, SCALE_WORDS, pairMessages as say } from '../../messages';
import { portIsUp } from '../link-state';
import { pairState, sharedWith } from './pairs';
import type { PairState } from './pairs';
import { bundleVerdicts } from './verdict';
import { mstConfigOf } from '../regions/config';

export interface PairCheck {
  readonly what: string;
  /** As it is at the first and at the second switch; empty where there is one answer for both. */
  readonly first: string;
  readonly second: string;
  readonly ok: boolean;
  /** Why it matters, where it is wrong. */
  readonly sentence: string;
}

export interface PairReport {
  readonly pair: SwitchPair;
  readonly state: PairState;
  readonly sentence: string;
  readonly checks: readonly PairCheck[];
}

/** `32768; 4096 for VLAN 110, 120` */
function tableWords(all: string, what: string, table: Record<string, number> | undefined): string {
  const byValue = new Map<number, string[]>();
  for (const [key, value] of Object.entries(table ?? {})) byValue.set(value, [...(byValue.get(value) ?? []), key]);
  const parts = [...byValue].map(([value, keys]) => `${value} for ${what} ${keys.join(', ')}`);
  return [all, ...parts].filter(Boolean).join('; ');
}

const settingWords = (
  all: string,
  vlan: Record<string, number> | undefined,
  instance: Record<string, number> | undefined,
): string => [tableWords(all, 'VLAN', vlan), tableWords('', 'instance', instance)].filter(Boolean).join('; ');

const SETTINGS: readonly { what: string; of: (s: Switch, design: Design) => string; why: string }[] = [
  {
    what: 'spanning tree',
    of: (s, design) => MODE_WORDS[modeOf(design, s)],
    why: say['unlike-mode'](),
  },
  {
    what: 'bridge priority',
    of: (s) => settingWords(String(s.priority ?? 32768), s.vlanPriority, s.instancePriority),
    why: say['unlike-priority'](),
  },
  {
    what: 'MST region',
    of: (s, design) => {
      if (design.regions.length === 0) return 'none';
      const { name, revision, digest } = mstConfigOf(design, s);
      return `${name}, revision ${revision}, digest ${digest.slice(0, 8)}…`;
    },
    why: say['unlike-region'](),
  },
  {
    what: 'cost scale',
    of: (s, design) => SCALE_WORDS[s.costScale ?? design.costScale],
    why: say['unlike-scale'](),
  },
  {
    what: 'LACP system priority',
    of: (s) => String(s.lacpPriority ?? LACP_PRIORITY.default),
    why: say['unlike-system'](),
  },
];

const GUARDS = ['bpduGuard', 'bpduFilter', 'rootGuard', 'loopGuard', 'silenceGuard', 'tcGuard'] as const;
const guardWords = (b: Bundle): string =>
  GUARDS.filter((guard) => b[guard])
    .map((guard) => GLOSSARY[guard].term)
    .join(', ') || 'none';

const BUNDLE_SETTINGS: readonly { what: string; of: (b: Bundle) => string }[] = [
  { what: 'kind', of: (b) => BUNDLE_KIND_WORDS[b.kind] },
  { what: 'negotiation', of: (b) => b.activity ?? 'active' },
  { what: 'timeout', of: (b) => b.timeout ?? 'long' },
  { what: 'key', of: (b) => String(b.key ?? 'by number') },
  { what: 'VLANs', of: (b) => b.vlans ?? 'all' },
  { what: 'native VLAN', of: (b) => String(b.native ?? 'none') },
  {
    what: 'cost',
    of: (b) =>
      settingWords(
        [b.cost ?? 'by speed', ...(b.internalCost === undefined ? [] : [`${b.internalCost} inside`])].join(', '),
        b.vlanCost,
        b.instanceCost,
      ),
  },
  {
    what: 'port priority',
    of: (b) => settingWords(String(b.priority ?? 128), b.vlanPriority, b.instancePriority),
  },
  { what: 'edge', of: (b) => (b.edge ? 'yes' : 'no') },
  { what: 'guards', of: guardWords },
  { what: 'minimum links', of: (b) => String(b.minActive ?? 1) },
  { what: 'minimum rate', of: (b) => (b.minRate === undefined ? 'none' : `${b.minRate} Mb/s`) },
  { what: 'maximum links', of: (b) => String(b.maxActive ?? 8) },
  { what: 'own system', of: (b) => [b.systemPriority, b.systemMac].filter((v) => v !== undefined).join(' ') || 'none' },
  { what: 'return delay', of: (b) => `${b.returnDelay ?? 0} s` },
  { what: 'kept members', of: (b) => (b.keepsWorking ? 'yes' : 'no') },
];

const working = (design: Design, ids: readonly string[]): number =>
  ids.filter((id) => {
    const link = linkById(design, id);
    return link && 'port' in link.a && portIsUp(design, link.a.port);
  }).length;

/** VLANs that shared bundles carry and no peer link does. */
function missingOnPeer(design: Design, pair: SwitchPair, bundles: readonly Bundle[]): number[] {
  const peers = pair.peer.flatMap((id) => {
    const link = linkById(design, id);
    return link && 'port' in link.a && 'port' in link.b ? [[link.a.port, link.b.port]] : [];
  });
  const carried = peers.map(([a, b]) => {
    const [x, y] = [a, b].map((id) => vlanMembership(portById(design, id!)?.vlans ?? 'all'));
    return (v: number) => x![v] === 1 && y![v] === 1;
  });
  const sets = bundles.map((b) => vlanMembership(b.vlans ?? 'all'));
  return design.vlans
    .map((v) => v.number)
    .filter((v) => sets.some((set) => set[v]) && !carried.some((carries) => carries(v)));
}

const sharedOf = (design: Design, pair: SwitchPair): Bundle[] =>
  design.bundles.filter((b) => b.shared !== undefined && pair.switches.includes(b.switch));

/** What is wrong with the active members of a shared bundle at both switches; empty where nothing is. */
function carryingSentence(state: PairState, active: readonly number[]): string {
  const both = active.every((n) => n > 0);
  switch (state) {
    case 'split':
      return both ? say['both-forward']() : say['partner-holds-with-one']();
    case 'primary-only':
      return say['second-is-down']();
    default:
      return both ? '' : say['cabled-to-one']();
  }
}

/** VLANs of a pair's shared bundles that its keepalive carries too: it is a link of their trees then. */
export function vlansOfKeepalive(design: Design, pair: SwitchPair): number[] {
  const bundles = sharedOf(design, pair);
  const link = pair.keepalive === undefined ? undefined : linkById(design, pair.keepalive);
  if (!link || !('port' in link.a && 'port' in link.b)) return [];
  const sets = [link.a.port, link.b.port].map((id) => vlanMembership(portById(design, id)?.vlans ?? 'all'));
  const shared = bundles.map((b) => vlanMembership(b.vlans ?? 'all'));
  return design.vlans.map((v) => v.number).filter((v) => sets.every((set) => set[v]) && shared.some((set) => set[v]));
}

function sharedChecks(design: Design, pair: SwitchPair): PairCheck[] {
  const [first, second] = pair.switches;
  const verdicts = new Map(bundleVerdicts(design).map((v) => [v.bundle, v]));
  return design.bundles.flatMap((b): PairCheck[] => {
    if (b.shared === undefined || !pair.switches.includes(b.switch)) return [];
    const other = sharedWith(design, b);
    const what = `bundle ${b.shared}`;
    if (!other) {
      const here = b.switch === first;
      return [
        {
          what,
          first: here ? b.name : 'none',
          second: here ? 'none' : b.name,
          ok: false,
          sentence: say['on-one-only'](),
        },
      ];
    }
    if (b.switch === second) return [];
    const unlike = BUNDLE_SETTINGS.filter(({ of }) => of(b) !== of(other)).map((s): PairCheck => ({
      what: `${what}, ${s.what}`,
      first: s.of(b),
      second: s.of(other),
      ok: false,
      sentence: say['unlike-bundle'](),
    }));
    const active = [b, other].map((end) => verdicts.get(end.id)!.members.filter((m) => m.state === 'active').length);
    const sentence = carryingSentence(pairState(design, pair), active);
    const [here, there] = active.map(String) as [string, string];
    const carrying = { what: `${what}, active members`, first: here, second: there, ok: sentence === '', sentence };
    return [...unlike, carrying];
  });
}

/** How many of the partners negotiate, and so see that a pair is split. */
function noticedBy(shared: readonly Bundle[]): 'none' | 'some' | 'all' {
  const negotiating = shared.filter((b) => b.kind !== 'static').length;
  return negotiating === 0 ? 'none' : negotiating < shared.length ? 'some' : 'all';
}

/** How a pair stands, and everything that both must have alike. */
export function pairReport(design: Design, pair: SwitchPair): PairReport {
  const [a, b] = pair.switches.map((id) => switchById(design, id)!) as [Switch, Switch];
  const state = pairState(design, pair);
  const up = working(design, pair.peer);
  const keepalive = pair.keepalive === undefined ? -1 : working(design, [pair.keepalive]);
  const inside = pair.keepalive !== undefined && pair.peer.includes(pair.keepalive);
  const shared = sharedOf(design, pair);
  const missing = missingOnPeer(design, pair, shared);
  const inTrees = inside ? [] : vlansOfKeepalive(design, pair);
  const inTreesWords = say['keepalive-in-trees']({
    vlans: `${inTrees.length === 1 ? 'VLAN' : 'VLANs'} ${formatVlanRanges(inTrees).replaceAll(',', ', ')}`,
  });
  const checks: PairCheck[] = [
    {
      what: 'peer link',
      first: `${up} of ${pair.peer.length} up`,
      second: '',
      ok: up > 1,
      sentence: up > 1 ? '' : up === 1 ? say['one-peer-cable']() : say['no-peer-cable'](),
    },
    {
      what: 'keepalive',
      first: keepalive < 0 ? 'none' : keepalive === 1 ? 'up' : 'down',
      second: '',
      ok: keepalive === 1 && !inside,
      sentence: inside ? say['keepalive-inside']() : keepalive === 1 ? '' : say['no-keepalive'](),
    },
    ...(inTrees.length > 0
      ? [
          {
            what: 'VLANs over the keepalive',
            first: formatVlanRanges(inTrees),
            second: '',
            ok: false,
            sentence: inTreesWords,
          },
        ]
      : []),
    {
      what: 'VLANs over the peer link',
      first: missing.length === 0 ? 'all VLANs of the shared bundles' : `without ${missing.join(', ')}`,
      second: '',
      ok: missing.length === 0,
      sentence: missing.length === 0 ? '' : say['peer-vlans'](),
    },
    ...SETTINGS.map(({ what, of, why }): PairCheck => {
      const [x, y] = [of(a, design), of(b, design)];
      return { what, first: x, second: y, ok: x === y, sentence: x === y ? '' : why };
    }),
    ...sharedChecks(design, pair),
  ];
  const names = { first: a.name, second: b.name };
  const sentence = state === 'split' ? say.split({ ...names, noticed: noticedBy(shared) }) : say[state](names);
  return { pair, state, sentence, checks };
}
