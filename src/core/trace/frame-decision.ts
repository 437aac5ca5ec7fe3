/** What a receiver did with a frame, and why: the message against what it held, and the result at that moment. */
import { portById, switchById } from '../design';
import type { Design } from '../design';
import { FLAG, decodeBpdu, decodeLacpdu, flagRole, openEnvelope } from '../protocols/frames';
import type { Bpdu, LacpInfo } from '../protocols/frames';
import { cistMessage, mstiMessage } from '../protocols/messages';
import { compareVectors, more } from '../standard';
import type { Vector } from '../standard';
import { bridgeIdWords, formatBridgeId, formatPortId, numberToMac, shortBridgeId, systemIdWords } from '../standard';
import { firstFrom, frameAt, portAt } from './frame-log';
import type { FrameRecord, Reception } from './frame-log';
import type { Trace } from './recorder';
import { keepaliveSentence, lacpSentence, messageSentence } from './frame-sentences';
import { portWords, treesWords } from './words';
import type { WhyCell, Part } from './vector-part';
export interface WhyRow {
  readonly who: string;
  readonly cells: readonly WhyCell[];
  readonly wins: boolean;
}
export interface FrameWhy {
  /** Which instance it is about; empty where there is one tree. */
  readonly about: string;
  readonly heads: readonly string[];
  readonly rows: readonly WhyRow[];
  /** Index of the part that decided; null where there was nothing to decide. */
  readonly decided: number | null;
  readonly sentence: string;
}

const plain = (text: string): WhyCell => ({ text, full: text });
const bridge = (priority: number, mac: number): WhyCell => {
  const id = { priority, mac };
  return { text: shortBridgeId(id, true), full: bridgeIdWords(id), hex: formatBridgeId(id) };
};
const ROOT: Part = {
  head: 'root',
  words: 'root',
  of: (v) => [v.rootPriority, v.rootMac],
  write: (v) => bridge(v.rootPriority, v.rootMac),
};
const cost = (head: string, words: string): Part => ({
  head,
  words,
  of: (v) => [v.externalCost],
  write: (v) => plain(String(v.externalCost)),
});
const REGIONAL: Part = {
  head: 'regional',
  words: 'regional root',
  of: (v) => [v.regionalPriority, v.regionalMac],
  write: (v) => bridge(v.regionalPriority, v.regionalMac),
};
const INSIDE: Part = {
  head: 'inside',
  words: 'cost inside the region',
  of: (v) => [v.internalCost],
  write: (v) => plain(String(v.internalCost)),
};
const BRIDGE: Part = {
  head: 'bridge',
  words: 'designated bridge',
  of: (v) => [v.bridgePriority, v.bridgeMac],
  write: (v) => bridge(v.bridgePriority, v.bridgeMac),
};
const PORT: Part = {
  head: 'port',
  words: 'designated port',
  of: (v) => [v.port],
  write: (v) => plain(formatPortId(v.port)),
};
const PLAIN: readonly Part[] = [ROOT, cost('cost', 'root path cost'), BRIDGE, PORT];
const REGION: readonly Part[] = [ROOT, cost('outside', 'cost outside the region'), REGIONAL, INSIDE, BRIDGE, PORT];
const INSTANCE: readonly Part[] = [REGIONAL, INSIDE, BRIDGE, PORT];

/** The message of a BPDU for a tree, as its receiver reads it: with regions, or not. */
function messageVector(bpdu: Bpdu, tree: number, regional: boolean): Vector | null {
  if (tree === 0) return cistMessage(bpdu, regional ? bpdu.mst : undefined);
  const part = bpdu.mst?.instances[tree - 1];
  return bpdu.mst && part ? mstiMessage(bpdu, bpdu.mst, part) : null;
}

/** Index of the first part in which two vectors differ; −1 when they are the same. */
const differing = (parts: readonly Part[], a: Vector, b: Vector): number =>
  parts.findIndex(({ of }) => of(a).some((n, i) => n !== of(b)[i]));

const HELD_BY = {
  Mine: 'own vector',
  Received: 'received vector',
  Aged: 'aged out',
} as const;

function bpduWhy(bpdu: Bpdu, hearing: Reception, regional: boolean): FrameWhy | null {
  const { tree, held, info } = hearing;
  const message = messageVector(bpdu, tree, regional);
  if (!message) return null;
  const parts = tree > 0 ? INSTANCE : regional ? REGION : PLAIN;
  const instance = tree > 0 ? (bpdu.mst?.instances[tree - 1]?.regionalPriority ?? 0) & 0xfff : 0;
  const flags = tree > 0 ? (bpdu.mst?.instances[tree - 1]?.flags ?? 0) : bpdu.flags;
  const row = (who: string, vector: Vector, wins: boolean): WhyRow => ({
    who,
    cells: parts.map((p) => p.write(vector)),
    wins,
  });
  const against = held ? differing(parts, message, held.vector) : -1;
  const better = held !== null && against >= 0 && compareVectors(message, held.vector) < 0;
  const taken = info === 'SuperiorDesignated' || info === 'better';
  return {
    about: tree > 0 ? `instance ${instance}` : '',
    heads: parts.map((p) => p.head),
    rows: [
      row('message', message, taken || held === null),
      ...(held ? [row(HELD_BY[held.whose], held.vector, !taken)] : []),
    ],
    decided: against < 0 ? null : against,
    sentence: messageSentence({
      info,
      part: parts[against] ?? null,
      message,
      held,
      better,
      learns: (flags & FLAG.learning) !== 0,
      agrees: (flags & FLAG.agreement) !== 0,
      role: bpdu.type === 'config' ? 'designated' : flagRole(flags),
    }),
  };
}

const partyCells = (i: LacpInfo): WhyCell[] => [
  {
    text: `${i.systemPriority}·${numberToMac(i.system).slice(-5)}`,
    full: systemIdWords(i.systemPriority, i.system),
  },
  plain(String(i.key)),
  plain(`${i.portPriority}.${i.port}`),
];

/** What the receiver said of itself last before a moment; null when it had not sent yet. */
function ownActor(trace: Trace, port: string, before: number): LacpInfo | null {
  for (let i = firstFrom(trace.frames, before) - 1; i >= 0; i--) {
    if (portAt(trace.frames, i) !== port) continue;
    const { kind, octets } = frameAt(trace.frames, i);
    if (kind === 'lacp' || kind === 'own') return decodeLacpdu(openEnvelope(octets).payload)?.actor ?? null;
  }
  return null;
}

function lacpWhy(trace: Trace, payload: Uint8Array, hearing: Reception): FrameWhy {
  const pdu = decodeLacpdu(payload);
  const own = ownActor(trace, hearing.port, hearing.at);
  const told = pdu ? partyCells(pdu.partner) : [];
  const mine = own ? partyCells(own) : [];
  const differs = own ? told.findIndex((c, i) => c.full !== mine[i]!.full) : -1;
  return {
    about: '',
    heads: pdu ? ['system', 'key', 'port'] : [],
    rows: [
      ...(pdu ? [{ who: 'received partner information', cells: told, wins: true }] : []),
      ...(own ? [{ who: 'own actor information', cells: mine, wins: true }] : []),
    ],
    decided: differs < 0 ? null : differs,
    sentence: lacpSentence(hearing.info, pdu, own),
  };
}

/** A frame in which nothing is compared. */
const said = (sentence: string): FrameWhy => ({ about: '', heads: [], rows: [], decided: null, sentence });

/** What a receiver says of a BPDU that it did not read further. */
const UNREAD = new Set(['guarded', 'again', 'stray', 'inconsistent']);

/** Why each tree of a receiver did with a frame what it did. `regional`: it runs multiple instances. */
export function whyReceived(trace: Trace, frame: FrameRecord, hearing: Reception, regional: boolean): FrameWhy | null {
  const { payload, kind } = openEnvelope(frame.octets);
  if (kind === 'lacpdu') return lacpWhy(trace, payload, hearing);
  if (kind === 'oampdu') return said(keepaliveSentence(payload));
  const bpdu = decodeBpdu(payload);
  if (!bpdu) return null;
  if (bpdu.type === 'notification' || UNREAD.has(hearing.info)) return said(messageSentence({ info: hearing.info }));
  return bpduWhy(bpdu, hearing, regional);
}

const isOfTrees = ({ mark }: FrameRecord): boolean => mark !== 'lacp' && mark !== 'keepalive';

export interface Consequence {
  readonly text: string;
  /** Index of a frame that was sent. */
  readonly frame?: number;
}
const MOST_ANSWERS = 6;

/** Ports of a switch that became something else at a moment, in words; trees in which they did so alike are one line. */
function movedAt(design: Design, trace: Trace, here: (port: string) => boolean, at: number): string[] {
  const moves = new Map<string, { port: string; trees: string[] }>();
  for (const { tree, port, spans } of trace.ports) {
    if (!here(port)) continue;
    const i = spans.findIndex((s) => s.at === at);
    const [before, now] = [spans[i - 1], spans[i]];
    if (i < 1 || !before || !now) continue;
    const words = `${portWords(design, port)}: ${before.role} ${before.state} → ${now.role} ${now.state}`;
    moves.set(words, { port, trees: [...(moves.get(words)?.trees ?? []), tree] });
  }
  const several = new Set(trace.ports.map((l) => l.tree)).size > 1;
  return [...moves].map(([words, { port, trees }]) =>
    several ? `${words}, ${treesWords(trace, trees, { design, port })}` : words,
  );
}

/** What happened at the receiver's switch at the very moment at which it took a frame in. */
export function consequencesOf(
  design: Design,
  trace: Trace,
  frame: FrameRecord,
  { port, at }: Reception,
): Consequence[] {
  const own = portById(design, port)?.switch;
  const here = (id: string) => (portById(design, id) ?? design.bundles.find((b) => b.id === id))?.switch === own;
  const moved = movedAt(design, trace, here, at).map((text) => ({ text }));
  const flushed = trace.happenings.reduce(
    (sum, h) => sum + (h.kind === 'flush' && h.at === at && h.switch === own ? h.entries : 0),
    0,
  );
  const answers: Consequence[] = [];
  let left = 0;
  for (let i = firstFrom(trace.frames, at); i < trace.frames.count && trace.frames.at[i] === at; i++) {
    const from = portAt(trace.frames, i);
    const answer = here(from) ? frameAt(trace.frames, i) : null;
    if (!answer || answer.vlan !== frame.vlan || isOfTrees(answer) !== isOfTrees(frame)) continue;
    if (answers.length < MOST_ANSWERS)
      answers.push({ text: `${portWords(design, from)} sends ${SENDS[answer.mark]}`, frame: i });
    else left++;
  }
  return [
    ...moved,
    ...(flushed > 0
      ? [
          {
            text: `${flushed} MAC table entries of the probed hosts flushed on ${switchById(design, own ?? '')?.name}.`,
          },
        ]
      : []),
    ...answers,
    ...(left > 0 ? [{ text: `and ${more(left, 'frame')}` }] : []),
  ];
}
const SENDS = {
  hello: 'a BPDU',
  proposal: 'a proposal',
  agreement: 'its agreement',
  change: 'a BPDU with the topology change flag',
  lacp: 'a LACPDU',
  keepalive: 'a keepalive',
} as const;
