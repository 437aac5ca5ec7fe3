/** What is set at a bridge and its ports. */
export interface PortSettings {
  readonly number: number;
  readonly pointToPoint: boolean;
  readonly edge: boolean;
  readonly autoEdge: boolean;
  readonly restrictedRole?: boolean;
  readonly restrictedTcn?: boolean;
  readonly loopGuard?: boolean;
  readonly silenceGuard?: boolean;
  /** Seconds between hellos of this port; absent: as the root says. */
  readonly helloTime?: number;
  /** By index of the tree. */
  readonly portId: readonly number[];
  readonly externalCost: number;
  readonly internalCost: readonly number[];
}

export interface BridgeTimers {
  /** Seconds. */
  readonly helloTime: number;
  readonly maxAge: number;
  readonly forwardDelay: number;
  readonly holdCount: number;
  readonly maxHops: number;
  /** Adds 1/256 s to the age of a message in place of a second. */
  readonly finelyAged?: boolean;
}

export interface BridgeSettings {
  readonly mac: number;
  /** 2: rapid, 3: multiple instances. */
  readonly version: 2 | 3;
  /** Of each tree, extension included; the first is the CIST. */
  readonly trees: readonly { readonly instance: number; readonly priority: number }[];
  /** The 51 octets that tell a region; null below version 3. */
  readonly configuration: Uint8Array | null;
  readonly timers: BridgeTimers;
}
