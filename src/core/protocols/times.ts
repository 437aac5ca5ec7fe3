/** Times that travel with a vector, in seconds; `hops` counts inside a region only. */
export interface Times {
  readonly messageAge: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
  readonly helloTime: number;
  readonly hops: number;
}

export const sameTimes = (a: Times, b: Times): boolean =>
  a === b ||
  (a.messageAge === b.messageAge &&
    a.maxAge === b.maxAge &&
    a.forwardDelay === b.forwardDelay &&
    a.helloTime === b.helloTime &&
    a.hops === b.hops);
