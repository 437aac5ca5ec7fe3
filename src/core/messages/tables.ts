/** What is wrong with a cell or a row of the tables, and what the neighbour check finds, by code. */

interface Cell {
  /** The text of the cell as it is repeated. */
  readonly text: string;
}

export const tableMessages = {
  'not-a-vlan': ({ text }: Cell) =>
    `VLAN '${text}' cannot be read: write one number from 1 to 4094, or leave the cell empty.`,
  'not-yes-or-no': ({ text }: Cell) => `The cell '${text}' is not yes or no: write yes, or leave the cell empty.`,
  'not-one-of': ({ what, text, legal }: Cell & { what: string; legal: readonly string[] }) =>
    `${what} '${text}' is not known: it is one of ${legal.join(', ')}, or empty.`,
  'no-switch': ({ text }: Cell) => `There is no switch '${text}' in this design.`,
  'no-switch-or-host': ({ text }: Cell) => `There is no switch or host '${text}' in this design.`,
  'nothing-for-note': ({ text }: Cell) =>
    `There is no switch, host, segment or link '${text}' in this design: a link is written as 'switch port – switch port'.`,
  'note-needs-words': () => 'A note needs words.',
  'number-missing': () => 'The number is missing: give one from 1 to 4095.',
  'port-needs-switch': () => 'A port needs a switch: name it.',
  'port-name-taken': ({ name, port }: { name: string; port: string }) =>
    `Switch '${name}' has a port '${port}' already.`,
  'member-moves': ({ port, bundle }: { port: string; bundle: string }) =>
    `Port '${port}' is a member of bundle '${bundle}': take it out of the bundle before it moves to another switch.`,
  'port-used': ({ port, name }: { port: string; name: string }) =>
    `Port '${port}' of ${name} is used already: a port takes one cable.`,
  'port-cabled': ({ port, name, by }: { port: string; name: string; by: string }) =>
    `Port '${port}' of ${name} has a cable already (${by}): a port takes one cable.`,
  'link-cell-empty': () => 'The cell is empty: a link needs a switch or a host at both ends.',
  'same-end': ({ port, name }: { port: string; name: string }) =>
    `Both ends of the link are port '${port}' of ${name}: a link needs two different ends.`,
  'segment-with-b-side': () => 'A row with a segment attaches one port to it: leave the b side empty.',
  'segment-with-host': () => 'A segment joins switch ports: name a switch.',
  'host-has-no-vlan': () => 'This end is a host: its VLAN is that of the port at the other end.',
  'host-has-no-cost': () => 'This end is a host: it has no port path cost.',
  'traffic-ends': () => 'Traffic needs both ends: name a host or a switch.',
  'traffic-vlan': () => 'Traffic needs a VLAN: write its number.',
  'every-vlan': () => 'Every VLAN from 1 to 4094 is in the design already.',

  'received-at-one-end': ({ silent, from }: { silent: string; from: string }) =>
    `Received at one end only: ${silent} receives no LLDP from ${from}.`,
  'both-report': () => 'Both ends report the drawn cable.',
  'one-reports': ({ name }: { name: string }) => `${name} reports the drawn cable; the other end has no list.`,
  'on-segment': ({ segment }: { segment: string }) => `Both ports are on the shared segment ${segment}.`,
  'drawn-otherwise': ({ a, b }: { a: string; b: string }) => `Drawn from ${a} to ${b}.`,
  'not-drawn': () => 'The drawing has no such cable.',
  'not-received': ({ names }: { names: readonly string[] }) =>
    `Drawn, but ${names.map((name) => `${name} receives no LLDP there`).join(' and ')}.`,
} as const;
