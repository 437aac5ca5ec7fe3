/**
 * What repeats itself: in a network at rest every hello is the one before, said and heard. As long as a port is not
 * woken, saying it again or hearing it again moves nothing but timers, and nothing else of the port is looked at.
 */
import { sameOctets, tellsChangeOf } from '../frames';
import { stir } from './procedures';
import { greets, saysAgain } from './transmission';
import { NEWS, PORT, RESTARTS, UNMOVED } from './timers';
import type { Vector } from '../../standard';
import type { BridgeEffect, Heard, InfoIs, MstBridge, Port, TreePort } from './variables';
import { MIGRATE_TIME } from '../../standard';

/**
 * Takes a BPDU in that is the one before, octet for octet; null when it is not, or the port was woken since. What is
 * given back says what each tree makes of it; nothing else comes of it.
 */
export function receiveAgain(b: MstBridge, index: number, octets: Uint8Array): Heard | null {
  const { slots, stride } = b.timers;
  const at = index * stride;
  if (!(slots[at + PORT.unmoved]! & UNMOVED.heard)) return null;
  const heard = b.heard[index]!;
  if (!sameOctets(heard.octets, octets)) return null;
  const { restarts } = heard;
  for (let t = 0; t < restarts.length; t++) if (restarts[t]! >= 0) slots[at + RESTARTS(t)] = restarts[t]!;
  slots[at + PORT.edgeDelayWhile] = MIGRATE_TIME;
  b.ports[index]!.breakSilence();
  return heard;
}

/** Takes a BPDU in that is the one before but for a topology change that it tells of; false when it is not. */
export function receiveChange(b: MstBridge, p: Port, octets: Uint8Array): boolean {
  if (b.trees.length > 1 || !(p.unmoved & UNMOVED.heard)) return false;
  const { octets: before, effects } = b.heard[p.index]!;
  if (!tellsChangeOf(before, octets) || !effects.every(readsChange)) return false;
  b.effects.push(...receiveAgain(b, p.index, before)!.effects);
  p.trees[0]!.rcvdTc = true;
  stir(b, p);
  return true;
}

/** Whether a topology change counts in a message: not in one from a bridge that knows less, nor in one that says nothing here. */
const readsChange = (e: BridgeEffect): boolean =>
  e.kind === 'heard' && (e.info === 'RepeatedDesignated' || e.info === 'InferiorRootAlternate');

/** What receiving can change of a tree at a port without any machine moving on. */
export const tellings = (tp: TreePort): number =>
  (tp.agreed ? 1 : 0) |
  (tp.proposing ? 2 : 0) |
  (tp.proposed ? 4 : 0) |
  (tp.disputed ? 8 : 0) |
  (tp.mastered ? 16 : 0) |
  (tp.rcvdTc ? 32 : 0) |
  (tp.agree ? 64 : 0) |
  (tp.synced ? 128 : 0);

/**
 * Whether a BPDU moved no more than that each tree of its port took its message. `from`: effects since it came; `moves` and
 * `told` as they were before.
 */
export function stoodStill(b: MstBridge, p: Port, from: number, moves: number, told: readonly number[]): boolean {
  const { effects } = b;
  if (effects.length === from || p.moves !== moves + effects.length - from) return false;
  for (let i = from; i < effects.length; i++) {
    const effect = effects[i]!;
    // An accepted vector has roles selected again, even where none changes.
    if (effect.kind !== 'heard' || effect.info === 'SuperiorDesignated') return false;
  }
  for (let t = 0; t < p.trees.length; t++) if (tellings(p.trees[t]!) !== told[t]) return false;
  return true;
}

/** Remembers a BPDU that moved nothing, and what each tree made of it. */
export function rememberReceived(b: MstBridge, p: Port, octets: Uint8Array, effects: readonly BridgeEffect[]): void {
  // Else it still counts what it heard since it came up.
  if (p.ppm !== 'SENSING') return;
  const restarts = p.trees.map(() => -1);
  for (const e of effects)
    if (e.kind === 'heard' && e.info === 'RepeatedDesignated') restarts[e.tree] = p.trees[e.tree]!.rcvdInfoWhile;
  b.heard[p.index] = { octets, restarts, effects };
  p.unmoved |= UNMOVED.heard;
}

/** What a port made of a message, with what it held until then. */
export function receivedEffect(tp: TreePort, whose: InfoIs, vector: Vector): BridgeEffect {
  const held = whose === 'Disabled' || tp.rcvdInfo === 'RepeatedDesignated' ? null : { vector, whose };
  return { kind: 'heard', port: tp.port.number, tree: tp.tree, info: tp.rcvdInfo, held };
}

/** Says the hello that is due once more, or nothing where nothing is to be said; false when there is more to it. */
export function sendAgain(b: MstBridge, index: number): boolean {
  const { slots, stride } = b.timers;
  const at = index * stride;
  if (slots[at + PORT.news] !== NEWS.none || slots[at + PORT.enabled] === 0) return false;
  if (slots[at + PORT.helloWhen] !== 0) return true;
  if (!(slots[at + PORT.unmoved]! & UNMOVED.said)) return false;
  const { send, helloTime } = b.hellos[index]!;
  if (slots[at + PORT.txCount]! >= b.settings.timers.holdCount) return false;
  slots[at + PORT.helloWhen] = helloTime;
  if (send === null) return true;
  slots[at + PORT.txCount]!++;
  b.effects.push(send);
  return true;
}

/** Remembers what a port says when its hello is due, once it has said all it had to say. */
export function rememberHello(b: MstBridge, p: Port): void {
  if (!p.portEnabled || !p.sendRSTP || p.newInfo || p.newInfoMsti) return;
  const greeting = greets(p);
  // Something may have moved since it last spoke.
  if (greeting && !(p.sentBefore && saysAgain(p, p.sentBefore))) return;
  const octets = greeting ? p.sentBefore!.octets : null;
  const { helloTime } = p.trees[0]!.designatedTimes;
  const before = b.hellos[p.index];
  if (before?.octets !== octets || before.helloTime !== helloTime)
    b.hellos[p.index] = { octets, helloTime, send: octets && { kind: 'send', port: p.number, octets } };
  p.unmoved |= UNMOVED.said;
}
