/**
 * How frames are shared out over the members of a bundle. A model: makers' switches differ in their hash, but all of
 * them send a conversation by one member, chosen from the fields that are looked at. Here the fields are hashed by
 * FNV-1a over their text, its bits are mixed, and the remainder by the number of active members chooses.
 */
import type { HASH_FIELDS } from '../design';
import { clipped, analysisMessages as say } from '../messages';

export type HashField = (typeof HASH_FIELDS)[number];

/** One conversation, with what a switch could look at; `load` in Mb/s. */
export interface Conversation extends Readonly<Record<HashField, string>> {
  readonly load: number;
}

/** The hash fields of a bundle without a setting. */
export const USUAL_HASH: readonly HashField[] = ['src-mac', 'dst-mac'];

function hash(text: string): number {
  let value = 2166136261;
  for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(i), 16777619);
  // Small differences at the end of an address should not end up in the same remainder.
  value = Math.imul(value ^ (value >>> 16), 0x45d9f3b);
  return (value ^ (value >>> 16)) >>> 0;
}

/** Place of the member, 0 … members − 1, that a conversation leaves by. */
export const memberOf = (c: Conversation, fields: readonly HashField[], members: number): number =>
  hash(fields.map((f) => c[f]).join(' ')) % members;

export interface Shares {
  /** Mb/s of each member. */
  readonly load: readonly number[];
  /** Conversations of each member. */
  readonly count: readonly number[];
  /** Load of the fullest member against the mean: 1 is even. */
  readonly unevenness: number;
}

/** What each of a number of members carries (at least one). */
export function shares(conversations: readonly Conversation[], fields: readonly HashField[], members: number): Shares {
  const load = new Array<number>(members).fill(0);
  const count = new Array<number>(members).fill(0);
  for (const c of conversations) {
    const member = memberOf(c, fields, members);
    load[member]! += c.load;
    count[member]! += 1;
  }
  const mean = load.reduce((a, b) => a + b, 0) / members;
  return { load, count, unevenness: mean === 0 ? 1 : Math.max(...load) / mean };
}

/** Conversations that change their member when one of the members fails, those of the failed one included. */
export const movedByFailure = (
  conversations: readonly Conversation[],
  fields: readonly HashField[],
  members: number,
  failed: number,
): number =>
  conversations.filter((c) => {
    const before = memberOf(c, fields, members);
    if (members < 2) return true;
    const left = memberOf(c, fields, members - 1);
    return (left >= failed ? left + 1 : left) !== before;
  }).length;

export type Typed =
  | { readonly ok: true; readonly conversations: readonly Conversation[] }
  | { readonly ok: false; readonly sentence: string };

/**
 * Conversations from lines as people type them or copy them from a table: from, to and load, then if wanted VLAN and
 * ports, separated by blanks, tabs, commas or semicolons. From and to stand for frame and packet addresses alike.
 */
export function typedConversations(text: string): Typed {
  const conversations: Conversation[] = [];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    const cells = line.trim().split(/[\s,;]+/);
    if (cells[0] === '') continue;
    const [from, to, load, vlan = '1', source = '49152', target = '443'] = cells;
    const wrong = (why: string): Typed => ({ ok: false, sentence: say['typed-line']({ line: i + 1, reason: why }) });
    if (to === undefined || load === undefined) return wrong(say['typed-incomplete']({ text: clipped(line.trim()) }));
    if (!(Number(load) >= 0)) return wrong(say['typed-load']({ text: clipped(load) }));
    if (!(Number(vlan) >= 1 && Number(vlan) <= 4094)) return wrong(say['typed-vlan']({ text: clipped(vlan) }));
    for (const port of [source, target])
      if (!(Number.isInteger(Number(port)) && Number(port) >= 0 && Number(port) <= 65535))
        return wrong(say['typed-port']({ text: clipped(port) }));
    conversations.push({
      'src-mac': from!,
      'dst-mac': to,
      vlan,
      'src-ip': from!,
      'dst-ip': to,
      'src-port': source,
      'dst-port': target,
      load: Number(load),
    });
  }
  return { ok: true, conversations };
}

const octet = (n: number) => (n & 0xff).toString(16).padStart(2, '0');
const mac = (group: number, n: number) => `02:00:5e:${octet(group)}:${octet(n >> 8)}:${octet(n)}`;

/** Each of a number of hosts talks to each of a number of servers, in one VLAN, at the same load. */
export function generated(hosts: number, servers: number, load: number, vlan = 1): Conversation[] {
  return Array.from({ length: hosts * servers }, (_, i): Conversation => {
    const [host, server] = [i % hosts, Math.floor(i / hosts)];
    return {
      'src-mac': mac(1, host),
      'dst-mac': mac(2, server),
      vlan: String(vlan),
      'src-ip': `192.0.2.${host % 256}`,
      'dst-ip': `198.51.100.${server % 256}`,
      'src-port': String(49152 + ((host * 37 + server * 11) % 16384)),
      'dst-port': '443',
      load,
    };
  });
}
