/** What breaks a goal, what it speaks of that is gone, and which goals contradict each other, by code. */
import { count } from '../standard';

/** Reasons stand inside a sentence, before the trees in which they hold: no capital, no full stop. */
export const breachMessages = {
  'switch-off': ({ name }: { name: string }) => `${name} is off`,
  'switch-outside': ({ name }: { name: string }) => `${name} is not in this tree`,
  'other-root': ({ name }: { name: string }) => `${name} is root`,
  'no-next': () => 'no switch comes next',
  'other-next': ({ name }: { name: string }) => `${name} comes next`,
  'port-outside': () => 'the port is not in the tree',
  'port-down': () => 'the port is down',
  'port-role': ({ role }: { role: string }) => `the port is ${role}`,
  'link-carries-too': () => 'the link carries it too',
  'port-lacks-vlan': () => 'the port does not carry it',
  'link-down': () => 'the link is down',
  'no-far-switch': () => 'the far end has no switch',
  'link-blocked': ({ name }: { name: string }) => `the link is blocked at ${name}`,
  'link-silent': ({ name }: { name: string }) => `the silence guard of ${name} blocks the link`,
  'link-too-deep': ({ name }: { name: string }) => `${name} blocks the link, since the BPDUs of its root expire there`,
  'no-path': () => 'there is no path',
  'no-path-too-deep': ({ name, root }: { name: string; root: string }) =>
    `there is no path: ${name} is too deep for the BPDUs of ${root}`,
  'path-crosses': ({ name }: { name: string }) => `the path crosses ${name}`,
  'path-too-long': ({ hops }: { hops: number }) => `the path has ${count(hops, 'hop')}`,
  'comes-before': ({ name, other }: { name: string; other: string }) => `${name} would come before ${other}`,
} as const;

interface Asked {
  /** `VLANs 110, 120` */
  readonly of: string;
}

interface Breaks {
  /** `Switch gate` */
  readonly lost: string;
  /** Empty, or `; so do 3 more failures`. */
  readonly more: string;
}

export const goalMessages = {
  root: ({ name, next, of }: Asked & { name: string; next: string | null }) =>
    `${name} is root of ${of}${next === null ? '' : `, ${next} comes next`}.`,
  blocked: ({ port, of }: Asked & { port: string }) => `The blocked port of ${of} is ${port}.`,
  carries: ({ port, of, only }: Asked & { port: string; only: boolean }) =>
    `The link at ${port} carries ${of}${only ? ', and other VLANs only as backup' : ''}.`,
  path: ({
    from,
    to,
    of,
    atMost,
    avoid,
  }: Asked & { from: string; to: string; atMost: number | null; avoid: string | null }) => {
    const limits = [
      ...(atMost === null ? [] : [`over at most ${count(atMost, 'hop')}`]),
      ...(avoid === null ? [] : [`not through ${avoid}`]),
    ];
    return `${from} and ${to} communicate in ${of}${limits.length > 0 ? ` ${limits.join(', ')}` : ''}.`;
  },
  'never-root': ({ tier, of }: Asked & { tier: string }) => `No ${tier} switch ever becomes root of ${of}.`,
  load: ({ percent }: { percent: number }) => `No link carries more than ${percent} % of its rate.`,

  'stays-connected': ({ who, of }: Asked & { who: string }) =>
    `After any single failure ${who} are still connected in ${of}.`,
  outage: ({ atMost }: { atMost: number }) =>
    atMost === 0 ? 'No single failure interrupts at all.' : `No single failure interrupts for longer than ${atMost} s.`,
  'load-left': ({ percent }: { percent: number }) =>
    `No link carries more than ${percent} % of its rate with any single failure.`,
  'lost-separates': ({ lost, who, vlans, more: others }: Breaks & { who: string; vlans: string }) =>
    `${lost} lost: separates ${who}${vlans}${others}.`,
  'lost-interrupts': ({ lost, outage, more: others }: Breaks & { outage: string }) =>
    `${lost} lost: contact is lost ${outage}${others}.`,
  'lost-fills': ({ lost, percent, more: others }: Breaks & { percent: number }) =>
    `${lost} lost: a link carries ${percent} % of its rate${others}.`,
  'apart-already': ({ who, vlans }: { who: string; vlans: string }) => `Apart already: ${who}${vlans}.`,
  'not-yet-known': () => 'Known once all failures have been looked at.',
  'known-when-applied': () => 'Known once the previewed change is applied.',

  'void-gone': ({ what }: { what: string }) => `Void: ${what} of this goal is not in the design.`,
  'void-no-tree': ({ vlans }: { vlans: string }) => `Void: no tree of the design carries VLAN ${vlans}.`,
  'void-no-tier': ({ tier }: { tier: string }) => `Void: no switch of the design is in the ${tier} tier.`,
  'void-bundle-down': () => 'Void: the bundle of this goal is down.',
  'void-host': () => 'Void: a host is at the other end, so the port forwards in every tree.',
  'void-not-cabled': () => 'Void: one of its ends is not cabled.',
  'void-no-traffic': () => 'Void: no traffic is entered yet, so no link has a load.',
  overload: ({ port, percent, more }: { port: string; percent: number; more: number }) =>
    `${port} sends ${percent} % of its rate${more > 0 ? `, and ${count(more, 'more link is', 'more links are')} over` : ''}.`,

  contradict: ({ goals, trees }: { goals: string; trees: string }) => `${goals} contradict each other in ${trees}.`,
  impossible: ({ goals, trees, reason }: { goals: string; trees: string; reason: string }) =>
    `${goals} cannot be met in ${trees}: ${reason}.`,
  'not-found-alone': ({ goals, trees }: { goals: string; trees: string }) =>
    `No setting was found that meets ${goals} in ${trees}, even by itself.`,
  'not-found-together': ({ goals, trees }: { goals: string; trees: string }) =>
    `Each of ${goals} can be met, but no setting was found that meets them together in ${trees}.`,
  'no-way-to-stay': ({ goals, reason }: { goals: string; reason: string }) =>
    `Neither settings nor cables were found that meet ${goals} for any single failure. ${reason}`,
  'no-path-for-load': ({ goals }: { goals: string }) =>
    `${goals} cannot be met together with the other goals: no other path for the load was found.`,
} as const;
