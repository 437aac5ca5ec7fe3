/** Events of a script as they stand in its list and, with a capital, in the story of a run; by code. */
/** Frames that one direction of a link can lose. */
export const lostFrames = {
  bpdus: 'BPDUs',
  control: 'BPDUs and LACPDUs',
  all: 'all frames',
  data: 'data frames',
} as const;

export const eventMessages = {
  'carrier-lost': ({ link, end }: { link: string; end: string }) => `link ${link} loses carrier at end ${end} only`,
  'link-lost': ({ link }: { link: string }) => `link ${link} lost`,
  'link-restored': ({ link }: { link: string }) => `link ${link} restored`,
  flaps: ({ link, times, every }: { link: string; times: number; every: number }) =>
    `link ${link} flaps ${times} ${times === 1 ? 'time' : 'times'}, every ${every} s`,
  'flap-step': ({ link, lost, turn, of }: { link: string; lost: boolean; turn: number; of: number }) =>
    `link ${link} flaps: ${lost ? 'lost' : 'back'}, ${turn} of ${of}`,
  'switch-off': ({ name }: { name: string }) => `switch ${name} off`,
  'switch-on': ({ name }: { name: string }) => `switch ${name} on`,
  'root-off': ({ vlan, name }: { vlan: number; name: string | null }) =>
    `the root of VLAN ${vlan}${name === null ? '' : `, ${name},`} off`,
  'cable-plugged': ({ a, b }: { a: string; b: string }) => `cable plugged in between ${a} and ${b}`,
  'hub-plugged': ({ port }: { port: string }) => `a looped hub plugged into ${port}`,
  'rogue-plugged': ({ port, priority }: { port: string; priority: number }) =>
    `a rogue switch with priority ${priority} plugged into ${port}`,
  unplugged: ({ port }: { port: string }) => `unplugged at ${port}`,
  'frames-lost': ({ link, end, frames }: { link: string; end: string; frames: keyof typeof lostFrames }) =>
    `${lostFrames[frames]} of end ${end} of link ${link} are lost`,
  'frames-pass': ({ link }: { link: string }) => `all frames of link ${link} pass again`,
  'migration-check': ({ port }: { port: string }) => `${port} checks again which protocol its neighbour speaks`,
  'tree-off': ({ name }: { name: string }) => `spanning tree switched off at ${name}`,
} as const;

export const eventFaultMessages = {
  gone: ({ what, id }: { what: string; id: string }) =>
    `There is no ${what} '${id}' in the design: the event has no effect.`,
} as const;
