/** Port numbers for ports that a table names without one. */
import type { Port } from '../design';
import { PORT_NUMBER } from '../standard';

export interface PendingPort {
  readonly port: Port;
  /** The number that the table gives; null without one. */
  readonly given: number | null;
}

/** Numbers that are given stand; then each port takes the number its name ends in, or the next free one after it. */
export function numberPorts(pending: readonly PendingPort[]): void {
  const place = (at: string, number: number) => `${at}\n${number}`;
  const taken = new Set(pending.flatMap(({ port, given }) => (given === null ? [] : [place(port.switch, given)])));
  for (const { port, given } of pending) {
    if (given !== null) continue;
    const trailing = Number(/(\d+)$/.exec(port.name)?.[1] ?? PORT_NUMBER.min);
    let number = trailing >= PORT_NUMBER.min && trailing <= PORT_NUMBER.max ? trailing : PORT_NUMBER.min;
    for (let tries = 0; tries < PORT_NUMBER.max && taken.has(place(port.switch, number)); tries++)
      number = number === PORT_NUMBER.max ? PORT_NUMBER.min : number + 1;
    taken.add(place(port.switch, number));
    port.number = number;
  }
}
