/** The words of the field as this application uses them: one name a thing, one sentence each, with the clause. */

export interface Term {
  readonly term: string;
  /** One sentence that says what it is. */
  readonly sentence: string;
  /** Where the standard defines it; absent for words that no standard defines. */
  readonly clause?: string;
  /** Names in code, where they differ from the term. */
  readonly code?: string;
}

const t = (term: string, sentence: string, clause?: string, code?: string): Term => ({
  term,
  sentence,
  ...(clause && { clause }),
  ...(code && { code }),
});

export const GLOSSARY = {
  bridgeId: t(
    'bridge identifier',
    'Priority, system ID extension and MAC address of a switch in a tree; the lowest one is root.',
    '802.1D-2004 9.2.5',
    'BridgeId',
  ),
  bridgePriority: t(
    'bridge priority',
    'The configurable part of the bridge identifier: 0 to 61440 in steps of 4096, 32768 by default.',
    '802.1D-2004 17.14',
  ),
  root: t(
    'root',
    'The switch with the lowest bridge identifier in a tree; all paths of the tree lead to it.',
    '802.1D-2004 17.1',
  ),
  nextRoot: t('next root', 'The switch that becomes root when the root fails.'),
  rootPathCost: t(
    'root path cost',
    'The sum of port costs to the root, added at each port that receives the BPDUs of the root.',
    '802.1D-2004 17.5',
    'rootPathCost',
  ),
  portCost: t(
    'port cost',
    'What a port adds to the root path cost; without a setting it follows from the speed of the link.',
    '802.1D-2004 17.14, table 17-3',
    'pathCost',
  ),
  costScale: t(
    'cost scale',
    'Default costs by speed: the 32-bit scale of 802.1D-2004 or the 16-bit scale of 802.1D-1998.',
    '802.1D-2004 table 17-3; 802.1D-1998 table 8-5',
    'costScale',
  ),
  portId: t(
    'port identifier',
    'Port priority and port number; the last but one tie-break between paths of equal cost.',
    '802.1D-2004 9.2.7',
  ),
  portPriority: t(
    'port priority',
    'The configurable part of the port identifier: 0 to 240 in steps of 16, 128 by default.',
    '802.1D-2004 17.14',
  ),
  rootPort: t('root port', 'The port of a switch with the best path to the root; it forwards.', '802.1D-2004 17.7'),
  designatedPort: t(
    'designated port',
    'The port with the best path to the root on its LAN; it forwards and sends BPDUs.',
    '802.1D-2004 17.7',
  ),
  alternatePort: t(
    'alternate port',
    'A blocked port with another path to the root through another switch; it replaces a lost root port.',
    '802.1D-2004 17.7',
  ),
  backupPort: t(
    'backup port',
    'A blocked port on a LAN where another port of the same switch is designated.',
    '802.1D-2004 17.7',
  ),
  masterPort: t(
    'master port',
    'In an MST instance, the port where the CIST leaves the region towards the root.',
    '802.1Q-2018 13.12',
  ),
  blocked: t('blocked', 'A port that is in a tree and does not forward its frames: alternate or backup, discarding.'),
  discarding: t(
    'discarding',
    'Port state in which no frames are forwarded and no addresses learned.',
    '802.1D-2004 7.4',
  ),
  edgePort: t(
    'edge port',
    'A port to an end device: it forwards at once, until it receives a BPDU.',
    '802.1D-2004 17.13.1 and 17.25',
    'operEdge',
  ),
  nextHop: t('next hop', 'The switch at the far end of the root port.'),
  tree: t('tree', 'What one VLAN, one MST instance or the whole network runs: a root, port roles and blocked ports.'),
  cist: t(
    'CIST',
    'The common and internal spanning tree: MST instance 0, which joins all regions.',
    '802.1Q-2018 13.5',
  ),
  instance: t(
    'instance',
    'A tree of an MST region, shared by the VLANs that are mapped to it.',
    '802.1Q-2018 13.5',
    'MSTI',
  ),
  region: t(
    'region',
    'Switches with the same MST configuration: name, revision and VLAN-to-instance map.',
    '802.1Q-2018 13.8',
  ),
  regionalRoot: t(
    'regional root',
    'The switch of a region nearest to the CIST root, or the root of an instance there.',
    '802.1Q-2018 13.9',
  ),
  digest: t(
    'configuration digest',
    'HMAC-MD5 of the VLAN-to-instance map: the form in which switches compare it.',
    '802.1Q-2018 13.8',
  ),
  hops: t('hops left', 'Switches that a BPDU may still cross inside its region.', '802.1Q-2018 13.13'),
  boundaryPort: t(
    'boundary port',
    'A port that joins a region to another region or to a switch without MST.',
    '802.1Q-2018 13.12',
  ),
  bpdu: t('BPDU', 'Bridge protocol data unit: the frame by which switches agree on a tree.', '802.1D-2004 9'),
  helloTime: t('hello time', 'Seconds between the BPDUs of a designated port.', '802.1D-2004 17.14'),
  maxAge: t('max age', 'Seconds after which the information of a BPDU expires.', '802.1D-2004 17.14'),
  forwardDelay: t(
    'forward delay',
    'Seconds of listening and of learning before a port forwards without an agreement.',
    '802.1D-2004 17.14',
  ),
  holdCount: t('hold count', 'BPDUs that a port may send in one second.', '802.1D-2004 17.13.12', 'txHoldCount'),
  bpduGuard: t('BPDU guard', 'Shuts an edge port down when it receives a BPDU.'),
  bpduFilter: t('BPDU filter', 'The port sends no BPDUs and ignores those it receives.'),
  rootGuard: t('root guard', 'Blocks a port while it receives superior BPDUs.', '802.1Q-2018 13.25 (restrictedRole)'),
  loopGuard: t('loop guard', 'Blocks a port that stops receiving BPDUs, instead of making it designated.'),
  tcGuard: t(
    'topology change guard',
    'Topology changes that are received or begin at the port go no further.',
    '802.1Q-2018 13.25 (restrictedTcn)',
  ),
  silenceGuard: t(
    'silence guard',
    'The port sends BPDUs in every role, and is blocked while it receives none; both ends need it.',
  ),
  yieldingFilter: t(
    'yielding filter',
    'A BPDU filter that sends for ten hellos, and ends with the first BPDU it receives.',
    undefined,
    'filterYields',
  ),
  oneWayDetection: t(
    'one-way detection',
    'Both ends send keepalives; a port shuts down or reports when five are missed at either end.',
    '802.3-2018 57',
    'oneWay',
  ),
  stormLimit: t(
    'storm limit',
    'The part of its rate that a port accepts as broadcast; it drops the rest, or shuts down.',
  ),
  ageStep: t(
    'age step',
    'What a switch adds to the age of a BPDU: a second, or 1/256 s as some do.',
    '802.1D-2004 17.21.23',
  ),
  ageingTime: t(
    'ageing time',
    'Seconds after which a switch forgets an address that it does not see again.',
    '802.1Q-2018 8.8.3',
  ),
  inconsistent: t('inconsistent', 'Blocked in a VLAN because the two ends of the cable use different untagged VLANs.'),
  topologyChange: t(
    'topology change',
    'The signal that makes switches delete learned addresses, since paths have moved.',
    '802.1D-2004 17.11',
    'tcWhile',
  ),
  macTable: t(
    'MAC table',
    'The addresses that a switch has learned, with the port of each.',
    '802.1D-2004 7.9',
    'table',
  ),
  nativeVlan: t('native VLAN', 'The VLAN whose frames cross a trunk untagged.', '802.1Q-2018 6.9', 'native'),
  trunk: t('trunk', 'A link that carries several VLANs, tagged.'),
  link: t('link', 'A cable with its two ends.'),
  bundle: t('bundle', 'Several links that act as one port.', '802.1AX-2014 6.1', 'Bundle'),
  lacp: t('LACP', 'The protocol by which the two ends of a bundle agree on its members.', '802.1AX-2014 6.4'),
  active: t('active member', 'A member that carries frames of the bundle.', '802.1AX-2014 6.4'),
  standby: t('standby', 'A member that could join while the maximum of active links is reached.', '802.1AX-2014 6.7.1'),
  individual: t(
    'individual',
    'A member that runs as a single port because it found no partner.',
    '802.1AX-2014 6.4.14',
  ),
  minimumLinks: t('minimum links', 'Active members below which the bundle goes down.', undefined, 'minActive'),
  minimumRate: t('minimum rate', 'Mb/s of active members below which the bundle goes down.', undefined, 'minRate'),
  returnDelay: t('return delay', 'Seconds that a member which came up waits while others carry.'),
  keepsWorking: t(
    'keeps members',
    'Active members stay active although better ones come back; both ends need it.',
    undefined,
    'keepsWorking',
  ),
  maximumLinks: t(
    'maximum links',
    'Active members that a bundle has at most; others are standby.',
    undefined,
    'maxActive',
  ),
  systemPriority: t(
    'system priority',
    'Decides which end of a bundle chooses the standby members: the lower value, then the lower MAC address.',
    '802.1AX-2014 6.3.2',
  ),
  actor: t('actor', 'The end that sends an LACPDU; the partner is the other end.', '802.1AX-2014 6.4.2'),
  pair: t(
    'multi-chassis pair',
    'Two switches that act as one bridge and one LACP system, joined by a peer link.',
    undefined,
    'SwitchPair',
  ),
  peerLink: t('peer link', 'The link or bundle inside a multi-chassis pair; spanning tree never blocks it.'),
  keepalive: t(
    'keepalive',
    'A separate path on which the switches of a pair detect each other when the peer link fails.',
  ),
  goal: t('goal', 'A condition that is kept with the design and checked at every change.'),
  linkUse: t(
    'link use',
    'Every tree against every link: where it forwards, where it is blocked, which links are idle.',
    undefined,
    'linkUseOf',
  ),
  protocolLoad: t(
    'protocol load',
    'Trees and BPDUs per second that each spanning tree mode asks of switches and links.',
    undefined,
    'protocolLoadOf',
  ),
  ledger: t('ledger', 'The candidates of a decision with their priority vectors, and the part that decided.'),
  priorityVector: t(
    'priority vector',
    'Root, root path cost, designated bridge, designated port and receiving port, compared in this order.',
    '802.1D-2004 17.5',
    'PriorityVector',
  ),
  simulation: t(
    'simulation',
    'The protocols run over time, in microseconds, from a script of events.',
    undefined,
    'core/simulation',
  ),
  script: t('script', 'Events with their times that a rehearsal carries out.'),
  rehearsal: t('rehearsal', 'The stage in which a script is simulated and its convergence measured.'),
  reachability: t('reachability', 'Whether the frames of a host pair, or of a VLAN, arrive.'),
  variant: t('variant', 'A version of a design with its own history.'),
  preview: t('preview', 'A change that is solved and shown before it is applied.', undefined, 'draft'),
} as const satisfies Record<string, Term>;

export type TermId = keyof typeof GLOSSARY;

/** All terms in alphabetical order, as a page in Markdown. */
export function glossaryPage(): string {
  const rows = Object.values<Term>(GLOSSARY)
    .sort((a, b) => a.term.localeCompare(b.term, 'en', { sensitivity: 'base' }))
    .map(({ term, sentence, clause, code }) => {
      const where = [clause, code && `\`${code}\``].filter(Boolean).join(' · ');
      return `- **${term}**: ${sentence}${where ? ` _${where}_` : ''}`;
    });
  return `# Glossary

The words of this application, on screen, in the documents, in the API and in code. The same sentences appear when a
term is pointed at. This page is written by \`npm run glossary\` from \`src/core/messages/glossary.ts\`.

${rows.join('\n')}
`;
}
