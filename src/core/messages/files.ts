/** What is wrong with a file from outside, or with one of its rows, by code. What it repeats of the file is clipped already. */

interface Cell {
  /** The text of the cell as it is repeated. */
  readonly text: string;
}

export const fileMessages = {
  empty: () => 'The file is empty.',
  'unknown-kind': () =>
    'The file is none that can be read: a design (JSON), GraphML, LLDP neighbours (JSON), or a CSV of switches (switch,mac), links (a_switch,a_port,b_switch,b_port,speed_mbps), VLANs (vlan) or neighbours (switch,port,neighbour,neighbour_port).',
  'whole-network': ({ file }: { file: string }) =>
    `${file} is a whole network: import this file once that design is open.`,
  'second-of-kind': () => 'Another file is a table of this kind already: put both into one.',
  'unknown-format': ({ format, legal }: { format: string; legal: readonly string[] }) =>
    `Format '${format}' is not known: it is one of ${legal.join(', ')}.`,

  'empty-table': ({ expected }: { expected: string }) => `The file is empty: it needs a header row with ${expected}.`,
  binary: () => 'The file is not CSV: it holds binary characters.',
  'not-utf8-csv': () => 'The file is not in UTF-8: save it as CSV in UTF-8.',
  'line-ends': () =>
    'The line ends with a carriage return alone, others do not: save the file with one kind of line end.',
  quotes: () => 'A quoted cell is not closed properly: quotes inside a cell are doubled.',
  'header-lacks': ({ names, expected }: { names: string; expected: string }) =>
    `The header lacks ${names}: it reads ${expected}.`,
  'header-unknown': ({ names, expected }: { names: string; expected: string }) =>
    `The header has ${names}, which is not known: it reads ${expected}.`,
  'header-twice': ({ names }: { names: string }) => `The header has ${names} twice: each column stands once.`,

  'not-a-number': ({ text }: Cell) => `The cell '${text}' is not a number.`,
  'unknown-mode': ({ text, legal }: Cell & { legal: readonly string[] }) =>
    `Protocol '${text}' is not known: it is one of ${legal.join(', ')}.`,
  'unknown-scale': ({ text }: Cell) => `Cost scale '${text}' is not known: it is long (32-bit) or short (16-bit).`,
  'link-cell-empty': () =>
    'The cell is empty: a link needs a switch and a port at both ends, or a segment and the a side.',
  'no-switch-in-table': ({ text }: Cell) => `There is no switch '${text}' in the table of switches.`,
  'port-used': ({ port, name, row }: { port: string; name: string; row: number }) =>
    `Port '${port}' of ${name} is already used in row ${row}: a port takes one cable.`,
  'speed-cell-empty': () => 'The cell is empty: give the speed in Mb/s, such as 1000.',
  'segment-with-b-side': () => 'A row with a segment attaches one port to it: leave the b side empty.',
  'vlan-list': ({ text, part }: Cell & { part: string }) =>
    `The list '${text}' cannot be read at '${part}': write numbers from 1 to 4094 and ranges such as 110-140,199, or all.`,
  'vlan-cell-empty': () => 'The cell is empty: give a VLAN number from 1 to 4094.',

  'xml-ends-within': ({ within }: { within: string }) => `The file is not complete XML: it ends within ${within}.`,
  xml: ({ reason }: { reason: string }) => `The file is not complete XML: ${reason}.`,
  'xml-broken': () => 'The file is not complete XML.',
  'xml-name': () => 'The file holds an element with a name that no graph has.',
  'xml-depth': ({ levels }: { levels: number }) => `The elements are nested more than ${levels} deep.`,
  'xml-entities': () => 'The file declares a document type or entities, which are not read.',
  'no-graph': () => 'The file holds no graph: GraphML starts with <graphml> and a <graph> in it.',
  'node-without-id': ({ number }: { number: number }) => `Node ${number} has no id: every node of a graph needs one.`,

  'no-neighbours': () => 'The file holds no list of LLDP neighbours: it starts with {"lldp": …}.',
  'neighbour-unnamed': ({ port }: { port: string }) =>
    `The neighbour on '${port}' has no name or no port, and is left out.`,
  'neighbour-cell-empty': () => 'The cell is empty: a neighbour needs both switches and both ports.',
} as const;

/** What a file is, in words. */
export const FILE_KINDS = {
  design: 'design',
  graphml: 'graph (GraphML)',
  switches: 'switches',
  links: 'links',
  vlans: 'VLANs',
  neighbours: 'neighbours',
  unknown: 'not readable',
} as const;
