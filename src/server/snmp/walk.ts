/** Asks one agent for everything that a reader wants, part by part, gently, and keeps what came when it stops answering. */
import { isIP } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import snmp from 'net-snmp';
import type { SnmpCredentials } from '../../api/observe';
import { observeMessages as say } from '../../core/messages';
import { SCALARS, WALKED, WALKED_LOGICAL, logicalBridges } from '../../core/observe';
import type { LogicalBridge, SnmpRow, SnmpValue } from '../../core/observe';
import { sessionWith } from './credentials';

export interface Target {
  readonly address: string;
  readonly port: number;
}

export interface WalkOptions {
  readonly timeout: number;
  readonly retries: number;
  /** Milliseconds between two requests to one agent. */
  readonly pause: number;
  readonly signal: AbortSignal;
}

export interface Walked {
  readonly rows: readonly SnmpRow[];
  /** What it answers for each of the bridges that it lists. */
  readonly logical: readonly (readonly SnmpRow[])[];
  /** What went wrong, each a sentence; with rows, what came before it is good. */
  readonly faults: readonly string[];
}

/** Rows of one part beyond which a table is not read further. */
const MOST_ROWS = 50_000;
const AT_ONCE = 25;

/** `192.0.2.10` or `192.0.2.10:1161`; null for anything else. Names are not looked up: an address is asked, and no other. */
export function readTarget(text: string): Target | null {
  const match = /^(?:snmp:\/\/)?([0-9.]+)(?::(\d{1,5}))?\/?$/.exec(text.trim());
  const port = Number(match?.[2] ?? 161);
  return match && isIP(match[1]!) === 4 && port > 0 && port < 65_536 ? { address: match[1]!, port } : null;
}

const arcsOf = (oid: string): number[] => oid.split('.').map(Number);

/** Whether the second comes after the first. */
function follows(a: readonly number[], b: readonly number[]): boolean {
  for (let i = 0; i < Math.min(a.length, b.length); i++) if (a[i] !== b[i]) return b[i]! > a[i]!;
  return b.length > a.length;
}

function valueOf({ type, value }: snmp.Varbind): SnmpValue | null {
  switch (type) {
    case snmp.ObjectType.OctetString:
    case snmp.ObjectType.Opaque:
      return new Uint8Array(value as Buffer);
    case snmp.ObjectType.Counter64:
      return (value as Buffer).reduce((sum, o) => sum * 256 + o, 0);
    case snmp.ObjectType.IpAddress:
      return Uint8Array.from(String(value).split('.'), Number);
    case snmp.ObjectType.OID:
      return String(value);
    default:
      return typeof value === 'number' ? value : null;
  }
}

/** Why a request failed, in words of ours; null for silence. */
function refusal(error: Error, address: string): string | null {
  if (error.name === 'RequestTimedOutError') return null;
  return say['refused-key']({ address, why: error.message.split('\n')[0]!.replace(/\.$/, '') });
}

const bulk = (session: snmp.Session, oid: string): Promise<snmp.Varbind[]> =>
  new Promise((resolve, reject) =>
    session.getBulk([oid], 0, AT_ONCE, (error: Error | null, answers?: (snmp.Varbind | snmp.Varbind[])[]) =>
      error ? reject(error) : resolve((answers ?? []).flat()),
    ),
  );

const get = (session: snmp.Session, oid: string): Promise<void> =>
  new Promise((resolve, reject) => session.get([oid], (error: Error | null) => (error ? reject(error) : resolve())));

/** One part of the tree of objects. Answers that go back end it. */
async function walkPart(
  session: snmp.Session,
  root: string,
  address: string,
  options: WalkOptions,
  rows: SnmpRow[],
): Promise<string | null> {
  const below = `${root}.`;
  let at = root;
  let last = arcsOf(root);
  for (let count = 0; !options.signal.aborted;) {
    for (const answer of await bulk(session, at)) {
      if (snmp.isVarbindError(answer) || !(answer.oid === root || answer.oid.startsWith(below))) return null;
      const arcs = arcsOf(answer.oid);
      if (!follows(last, arcs)) return say['walk-loops']({ address, object: root });
      const value = valueOf(answer);
      if (value !== null) rows.push({ oid: answer.oid, value });
      last = arcs;
      at = answer.oid;
      if (++count >= MOST_ROWS) return say['walk-long']({ address, object: root, most: MOST_ROWS });
    }
    if (at === root) return null;
    if (options.pause > 0) await pause(options.pause);
  }
  return null;
}

/** Parts of one agent one after another, into `rows`; false once it stops answering. */
async function walkParts(
  session: snmp.Session,
  parts: readonly string[],
  { address }: Target,
  options: WalkOptions,
  into: { rows: SnmpRow[]; faults: string[] },
): Promise<boolean> {
  for (const root of parts) {
    if (options.signal.aborted) return false;
    try {
      const fault = await walkPart(session, root, address, options, into.rows);
      if (fault !== null) into.faults.push(fault);
    } catch (error) {
      into.faults.push(refusal(error as Error, address) ?? say['stopped-answering']({ address, object: root }));
      return false;
    }
  }
  return true;
}

/** The way to ask for one of the bridges of an agent; null where it does not tell how. */
function logicalSession(
  { address, port }: Target,
  of: SnmpCredentials,
  { community, context }: LogicalBridge,
  options: WalkOptions,
): snmp.Session | null {
  const times = { port, timeout: options.timeout, retries: options.retries };
  if (of.version === '3') return context === null ? null : sessionWith(address, of, times, context);
  return community === null ? null : sessionWith(address, { ...of, community }, times);
}

/** Each of the bridges that an agent lists, asked at the same address. */
async function walkLogical(
  target: Target,
  of: SnmpCredentials,
  options: WalkOptions,
  { rows, faults }: { rows: SnmpRow[]; faults: string[] },
): Promise<SnmpRow[][]> {
  const found: SnmpRow[][] = [];
  for (const bridge of logicalBridges(rows)) {
    const session = logicalSession(target, of, bridge, options);
    if (!session) continue;
    session.on('error', () => undefined);
    const own: SnmpRow[] = [];
    const goesOn = await walkParts(session, WALKED_LOGICAL, target, options, { rows: own, faults });
    session.close();
    if (own.length > 0) found.push(own);
    if (!goesOn) break;
  }
  return found;
}

/** Everything that one agent answers of what is asked. It never fails: what went wrong is in `faults`. */
export async function walkAgent(target: Target, of: SnmpCredentials, options: WalkOptions): Promise<Walked> {
  const { address } = target;
  const session = sessionWith(address, of, { port: target.port, timeout: options.timeout, retries: options.retries });
  session.on('error', () => undefined);
  const rows: SnmpRow[] = [];
  const faults: string[] = [];
  const seconds = Math.round((options.timeout * (options.retries + 1)) / 1000);
  try {
    await get(session, SCALARS.sysName);
  } catch (error) {
    session.close();
    return { rows, logical: [], faults: [refusal(error as Error, address) ?? say['no-answer']({ address, seconds })] };
  }
  const goesOn = await walkParts(session, WALKED, target, options, { rows, faults });
  session.close();
  const logical = goesOn ? await walkLogical(target, of, options, { rows, faults }) : [];
  return { rows, logical, faults };
}
