/** Ends of bundles as the LACP machines have them, for tests. */
import type { EndSettings } from '@/core/protocols/lacp';

/** An active end with two ports of 1 Gb/s; `more` says what is otherwise. */
export const endSettings = (system: number, more: Partial<EndSettings> = {}): EndSettings => ({
  system,
  systemPriority: 32768,
  key: 7,
  activity: 'active',
  timeout: 'long',
  minActive: 1,
  minRate: 0,
  returnDelay: 0,
  keepsWorking: false,
  maxActive: 8,
  individual: true,
  ports: [1, 2].map((number) => ({ number, priority: 32768, speed: 1000, half: false, up: true })),
  ...more,
});
