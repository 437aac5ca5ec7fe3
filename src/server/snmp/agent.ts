/** An agent that answers out of a book, whatever stands there at the moment; it can be read, and not written. */
import type { RemoteInfo, Socket } from 'node:dgram';
import snmp from 'net-snmp';
import type { SnmpCredentials } from '../../api/observe';
import { logicalCommunity } from '../../core/observe';
import type { Answer, AnswerBook, Asker, Syntax } from '../../core/observe';
import { userOf } from './credentials';

const TYPE: Readonly<Record<Syntax, number>> = {
  integer: snmp.ObjectType.Integer,
  gauge: snmp.ObjectType.Gauge,
  ticks: snmp.ObjectType.TimeTicks,
  octets: snmp.ObjectType.OctetString,
  oid: snmp.ObjectType.OID,
};

interface Varbind {
  oid: string;
  type: number;
  value: unknown;
}
interface Pdu {
  readonly type: number;
  readonly varbinds: Varbind[];
  readonly contextName?: string;
  readonly nonRepeaters?: number;
  readonly maxRepetitions?: number;
  errorStatus: number;
  errorIndex: number;
  getResponsePduForRequest(): Pdu;
}
interface Message {
  readonly pdu: Pdu;
  /** Of v2c. */
  readonly community?: string;
}
/** What of the package's agent is replaced and used; its types leave that out. */
interface OpenAgent {
  getRequest(socket: Socket, message: Message, from: RemoteInfo): void;
  getNextRequest(socket: Socket, message: Message, from: RemoteInfo): void;
  getBulkRequest(socket: Socket, message: Message, from: RemoteInfo): void;
  setRequest(socket: Socket, message: Message, from: RemoteInfo): void;
  onProxyRequest(socket: Socket, message: Message, from: RemoteInfo): void;
  sendResponse(socket: Socket, from: RemoteInfo, message: Message, answer: Pdu): void;
  getAuthorizer(): { addCommunity(community: string): void; addUser(user: snmp.User): void };
  close(): void;
  readonly listener: { readonly sockets: Readonly<Record<string, Socket>> };
}

/** Octets of values in one answer; a datagram holds no more. */
const MOST_OCTETS = 30_000;
const MOST_REPETITIONS = 500;

const bound = ({ oid, value, syntax }: Answer): Varbind => ({
  oid,
  type: TYPE[syntax],
  value: value instanceof Uint8Array ? Buffer.from(value) : value,
});

/** Answers to a request for many rows (RFC 3416 4.2.3). */
function repeated({ varbinds, nonRepeaters = 0, maxRepetitions = 0 }: Pdu, next: (oid: string) => Varbind): Varbind[] {
  const answers = varbinds.slice(0, nonRepeaters).map((v) => next(v.oid));
  const at = varbinds.slice(nonRepeaters).map((v) => v.oid);
  let size = 0;
  for (let n = 0; n < Math.min(maxRepetitions, MOST_REPETITIONS) && size < MOST_OCTETS; n++) {
    const row = at.map(next);
    answers.push(...row);
    if (row.every((v) => v.type === snmp.ObjectType.EndOfMibView)) break;
    row.forEach((v, i) => (at[i] = v.oid));
    size += row.reduce((sum, v) => sum + 24 + (Buffer.isBuffer(v.value) ? v.value.length : 8), 0);
  }
  return answers;
}

export interface AgentAddress {
  readonly address: string;
  readonly port: number;
}

/** Replaces what the package answers by what stands in a book. */
function answerWith(agent: OpenAgent, book: (message: Message) => AnswerBook): void {
  const answer = (socket: Socket, message: Message, from: RemoteInfo, varbinds: Varbind[], status = 0) => {
    const pdu = message.pdu.getResponsePduForRequest();
    Object.assign(pdu, { errorStatus: status, errorIndex: status === 0 ? 0 : 1, varbinds });
    agent.sendResponse(socket, from, message, pdu);
  };
  const next = (of: AnswerBook) => (oid: string) => {
    const found = of.after(oid);
    return found ? bound(found) : { oid, type: snmp.ObjectType.EndOfMibView, value: null };
  };
  const exact = (of: AnswerBook) => (oid: string) => {
    const found = of.get(oid);
    return found ? bound(found) : { oid, type: snmp.ObjectType.NoSuchInstance, value: null };
  };
  /** An agent that cannot answer says nothing. */
  const quietly =
    (handle: (message: Message) => Varbind[], status = 0) =>
    (socket: Socket, message: Message, from: RemoteInfo) => {
      try {
        answer(socket, message, from, handle(message), status);
      } catch {
        return;
      }
    };
  agent.getRequest = quietly((m) => m.pdu.varbinds.map((v) => exact(book(m))(v.oid)));
  agent.getNextRequest = quietly((m) => m.pdu.varbinds.map((v) => next(book(m))(v.oid)));
  agent.getBulkRequest = quietly((m) => repeated(m.pdu, next(book(m))));
  agent.setRequest = quietly(({ pdu }) => pdu.varbinds, snmp.ErrorStatus.NotWritable);
  // Requests in a context would go on to another agent: here it is one of the bridges of this one.
  agent.onProxyRequest = (socket, message, from) => {
    const { type } = message.pdu;
    if (type === snmp.PduType.GetRequest) agent.getRequest(socket, message, from);
    else if (type === snmp.PduType.GetNextRequest) agent.getNextRequest(socket, message, from);
    else if (type === snmp.PduType.GetBulkRequest) agent.getBulkRequest(socket, message, from);
    else if (type === snmp.PduType.SetRequest) agent.setRequest(socket, message, from);
  };
}

export interface Served {
  /** What is answered to whom, at the moment. */
  readonly book: (asker: Asker) => AnswerBook;
  /** Names of the bridges that are asked for by communities and contexts of their own. */
  readonly logical?: readonly string[];
}

/** Who asks, by the community or the context of a request. */
function askerReader(communities: readonly string[], logical: readonly string[]): (message: Message) => Asker {
  const known = new Map<string, Asker>();
  for (const community of communities) {
    known.set(community, { community, logical: null });
    for (const name of logical) known.set(logicalCommunity(community, name), { community, logical: name });
  }
  const own = { community: null, logical: null };
  return ({ community, pdu }) =>
    known.get(community ?? '') ?? (pdu.contextName ? { community: null, logical: pdu.contextName } : own);
}

/** Serves books at an address until it is closed; fails where the address is taken. */
export async function serveAgent(
  { address, port }: AgentAddress,
  credentials: readonly SnmpCredentials[],
  { book, logical = [] }: Served,
): Promise<{ close: () => void }> {
  let failed: (error: Error) => void = () => undefined;
  const agent = snmp.createAgent({ port, address, disableAuthorization: false }, (error: Error | null) => {
    // Requests that are not understood or not allowed get no answer, as agents do.
    if (error && 'code' in error && 'syscall' in error) failed(error);
  }) as unknown as OpenAgent;
  const communities = credentials.flatMap((of) => (of.version === '3' ? [] : [of.community]));
  for (const of of credentials) if (of.version === '3') agent.getAuthorizer().addUser(userOf(of));
  for (const community of communities)
    for (const name of [null, ...logical])
      agent.getAuthorizer().addCommunity(name === null ? community : logicalCommunity(community, name));
  const askerOf = askerReader(communities, logical);
  answerWith(agent, (message) => book(askerOf(message)));
  const [socket] = Object.values(agent.listener.sockets) as [Socket];
  await new Promise<void>((resolve, reject) => {
    failed = reject;
    socket.once('listening', resolve);
  });
  return { close: () => agent.close() };
}
