/** Reading walks as tools print them, and identifiers against the definitions. */
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { COLUMNS, SCALARS } from './objects';
import { readSnmp } from './read';
import { bitString, bitsOf } from './tree';
import { isWalkText, readWalkText } from './walk-text';

const SOURCE = { kind: 'snmp', name: 'walk', at: null } as const;

/** Where Debian keeps the definitions of the RFCs, as modules that a tool made of them. */
const DEFINITIONS = '/usr/lib/python3/dist-packages/pysnmp_mibs';

(existsSync(DEFINITIONS) ? test : test.skip)('every identifier of the RFCs is that of its definition', () => {
  const defined = new Map<string, string>();
  for (const file of readdirSync(DEFINITIONS).filter((f) => f.endsWith('-MIB.py')))
    for (const [, name, oid] of readFileSync(path.join(DEFINITIONS, file), 'utf8').matchAll(
      /^(\w+) = Mib(?:Scalar|TableColumn)\(\(([\d, ]+)\)/gm,
    ))
      defined.set(name!, oid!.replace(/ /g, '').replace(/,$/, '').split(',').join('.'));
  const ours = [
    ...Object.entries(SCALARS).map(([name, oid]) => [name, oid.replace(/\.0$/, '')] as const),
    ...Object.entries(COLUMNS),
  ].filter(([name]) => !/^(lldp|dot3ad|ieee|sys)/.test(name));
  expect(ours.length).toBeGreaterThan(50);
  for (const [name, oid] of ours) expect([name, defined.get(name)]).toEqual([name, oid]);
});

/** Columns of the tables that no package defines, in the order in which the standards list them, from the given one on. */
const SEQUENCES: readonly (readonly [entry: string, from: number, columns: string])[] = [
  ['1.0.8802.1.1.2.1.3.7.1', 2, 'lldpLocPortIdSubtype lldpLocPortId lldpLocPortDesc'],
  [
    '1.0.8802.1.1.2.1.4.1.1',
    4,
    'lldpRemChassisIdSubtype lldpRemChassisId lldpRemPortIdSubtype lldpRemPortId lldpRemPortDesc lldpRemSysName lldpRemSysDesc lldpRemSysCapSupported lldpRemSysCapEnabled',
  ],
  ['1.0.8802.1.1.2.1.4.2.1', 3, 'lldpRemManAddrIfSubtype lldpRemManAddrIfId lldpRemManAddrOID'],
  [
    '1.2.840.10006.300.43.1.1.1.1',
    2,
    'dot3adAggMACAddress dot3adAggActorSystemPriority dot3adAggActorSystemID dot3adAggAggregateOrIndividual dot3adAggActorAdminKey dot3adAggActorOperKey dot3adAggPartnerSystemID dot3adAggPartnerSystemPriority dot3adAggPartnerOperKey dot3adAggCollectorMaxDelay',
  ],
  [
    '1.2.840.10006.300.43.1.2.1.1',
    2,
    'dot3adAggPortActorSystemPriority dot3adAggPortActorSystemID dot3adAggPortActorAdminKey dot3adAggPortActorOperKey dot3adAggPortPartnerAdminSystemPriority dot3adAggPortPartnerOperSystemPriority dot3adAggPortPartnerAdminSystemID dot3adAggPortPartnerOperSystemID dot3adAggPortPartnerAdminKey dot3adAggPortPartnerOperKey dot3adAggPortSelectedAggID dot3adAggPortAttachedAggID dot3adAggPortActorPort dot3adAggPortActorPortPriority dot3adAggPortPartnerAdminPort dot3adAggPortPartnerOperPort dot3adAggPortPartnerAdminPortPriority dot3adAggPortPartnerOperPortPriority dot3adAggPortActorAdminState dot3adAggPortActorOperState dot3adAggPortPartnerAdminState dot3adAggPortPartnerOperState dot3adAggPortAggregateOrIndividual',
  ],
  [
    '1.3.111.2.802.1.1.3.1.1.1',
    2,
    'ieee8021SpanningTreeProtocolSpecification ieee8021SpanningTreePriority ieee8021SpanningTreeTimeSinceTopologyChange ieee8021SpanningTreeTopChanges ieee8021SpanningTreeDesignatedRoot ieee8021SpanningTreeRootCost ieee8021SpanningTreeRootPort ieee8021SpanningTreeMaxAge ieee8021SpanningTreeHelloTime ieee8021SpanningTreeHoldTime ieee8021SpanningTreeForwardDelay ieee8021SpanningTreeBridgeMaxAge ieee8021SpanningTreeBridgeHelloTime ieee8021SpanningTreeBridgeForwardDelay ieee8021SpanningTreeVersion ieee8021SpanningTreeRstpTxHoldCount',
  ],
  [
    '1.3.111.2.802.1.1.3.1.2.1',
    3,
    'ieee8021SpanningTreePortPriority ieee8021SpanningTreePortState ieee8021SpanningTreePortEnabled ieee8021SpanningTreePortPathCost ieee8021SpanningTreePortDesignatedRoot ieee8021SpanningTreePortDesignatedCost ieee8021SpanningTreePortDesignatedBridge ieee8021SpanningTreePortDesignatedPort ieee8021SpanningTreePortForwardTransitions ieee8021SpanningTreeRstpPortProtocolMigration ieee8021SpanningTreeRstpPortAdminEdgePort ieee8021SpanningTreeRstpPortOperEdgePort ieee8021SpanningTreeRstpPortAdminPathCost',
  ],
  [
    '1.3.111.2.802.1.1.6.1.1.1',
    2,
    'ieee8021MstpCistBridgeIdentifier ieee8021MstpCistTopologyChange ieee8021MstpCistRegionalRootIdentifier ieee8021MstpCistPathCost ieee8021MstpCistMaxHops',
  ],
  [
    '1.3.111.2.802.1.1.6.1.2.1',
    3,
    'ieee8021MstpBridgeId ieee8021MstpTimeSinceTopologyChange ieee8021MstpTopologyChanges ieee8021MstpTopologyChange ieee8021MstpDesignatedRoot ieee8021MstpRootPathCost ieee8021MstpRootPort ieee8021MstpBridgePriority ieee8021MstpVids0 ieee8021MstpVids1 ieee8021MstpVids2 ieee8021MstpVids3',
  ],
  [
    '1.3.111.2.802.1.1.6.1.3.1',
    3,
    'ieee8021MstpCistPortUptime ieee8021MstpCistPortAdminPathCost ieee8021MstpCistPortDesignatedRoot ieee8021MstpCistPortTopologyChangeAck ieee8021MstpCistPortHelloTime ieee8021MstpCistPortAdminEdgePort ieee8021MstpCistPortOperEdgePort ieee8021MstpCistPortMacEnabled ieee8021MstpCistPortMacOperational ieee8021MstpCistPortRestrictedRole ieee8021MstpCistPortRestrictedTcn ieee8021MstpCistPortRole ieee8021MstpCistPortDisputed ieee8021MstpCistPortCistRegionalRootId ieee8021MstpCistPortCistPathCost',
  ],
  [
    '1.3.111.2.802.1.1.6.1.4.1',
    4,
    'ieee8021MstpPortUptime ieee8021MstpPortState ieee8021MstpPortPriority ieee8021MstpPortPathCost ieee8021MstpPortDesignatedRoot ieee8021MstpPortDesignatedCost ieee8021MstpPortDesignatedBridge ieee8021MstpPortDesignatedPort ieee8021MstpPortRole ieee8021MstpPortDisputed',
  ],
  [
    '1.3.111.2.802.1.1.6.1.7.1',
    3,
    'ieee8021MstpConfigurationName ieee8021MstpRevisionLevel ieee8021MstpConfigurationDigest',
  ],
];

test('identifiers that no package defines stand where the standards list them', () => {
  const places = new Map(
    SEQUENCES.flatMap(([entry, from, columns]) =>
      columns.split(' ').map((name, i) => [name, `${entry}.${from + i}`] as const),
    ),
  );
  const ours = Object.entries(COLUMNS).filter(([name]) => /^(lldp|dot3ad|ieee)/.test(name));
  expect(ours.length).toBeGreaterThan(50);
  for (const [name, oid] of ours) expect([name, places.get(name)]).toEqual([name, oid]);
});

test('a walk is read as it is printed: hex over lines, texts over lines, enumerations, and what is not there', () => {
  const text = [
    '.1.3.6.1.2.1.1.5.0 = STRING: "quay-1"',
    '.1.3.6.1.2.1.1.1.0 = STRING: "a switch',
    'of two \\"lines\\""',
    '.1.3.6.1.2.1.17.7.1.4.3.1.2.10 = Hex-STRING: FF 00 00 00 00 00 00 00 00 00 00 00 00 00 00 00 ',
    '80 01 ',
    '.1.3.6.1.2.1.2.2.1.8.3 = INTEGER: up(1)',
    '.1.3.6.1.2.1.1.3.0 = Timeticks: (4711) 0:00:47.11',
    'iso.3.6.1.2.1.1.6.0 = ""',
    '.1.3.6.1.2.1.4.20.1.1.192.0.2.1 = IpAddress: 192.0.2.1',
    '.1.3.6.1.2.1.99 = No Such Object available on this agent at this OID',
    'Timeout: No Response from 192.0.2.1',
  ].join('\n');
  expect(isWalkText(text)).toBe(true);
  const { rows, passed } = readWalkText(text);
  const byOid = Object.fromEntries(rows.map((r) => [r.oid, r.value]));
  const words = (oid: string) => new TextDecoder().decode(byOid[oid] as Uint8Array);
  expect(words('1.3.6.1.2.1.1.5.0')).toBe('quay-1');
  expect(words('1.3.6.1.2.1.1.1.0')).toBe('a switch\nof two "lines"');
  expect(bitsOf(byOid['1.3.6.1.2.1.17.7.1.4.3.1.2.10'] as Uint8Array)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 129, 144]);
  expect(byOid['1.3.6.1.2.1.2.2.1.8.3']).toBe(1);
  expect(byOid['1.3.6.1.2.1.1.3.0']).toBe(4711);
  expect(byOid['1.3.6.1.2.1.1.6.0']).toEqual(new Uint8Array());
  expect(byOid['1.3.6.1.2.1.99']).toBeUndefined();
  expect(passed).toBe(1);
});

test('bit strings count from the most significant bit, there and back', () => {
  expect([...bitString([1, 8, 9], 16)]).toEqual([0x81, 0x80]);
  expect(bitsOf(bitString([3, 17, 64], 64))).toEqual([3, 17, 64]);
});

const mac = (last: number) => Uint8Array.of(0, 0, 0x5e, 0, 0x53, last);
const id = (priority: number, last: number) => Uint8Array.of(priority >> 8, priority & 0xff, ...mac(last));
const said = (text: string) => new TextEncoder().encode(text);

/** A bridge with one port that is up, with a priority that lacks the extension and a root port given as an interface. */
const ODD = [
  { oid: SCALARS.sysName, value: said('shed') },
  { oid: SCALARS.dot1dBaseBridgeAddress, value: mac(5) },
  { oid: SCALARS.dot1dStpPriority, value: 32768 },
  { oid: SCALARS.dot1dStpDesignatedRoot, value: id(4096 + 7, 1) },
  { oid: SCALARS.dot1dStpRootPort, value: 10101 },
  { oid: SCALARS.dot1dStpVersion, value: 2 },
  ...[1, 2].flatMap((port) => [
    { oid: `${COLUMNS.dot1dBasePortIfIndex}.${port}`, value: 10100 + port },
    { oid: `${COLUMNS.ifName}.${10100 + port}`, value: said(`g${port}`) },
    { oid: `${COLUMNS.dot1dStpPortState}.${port}`, value: 5 },
    { oid: `${COLUMNS.dot1dStpPortPathCost}.${port}`, value: 4 },
    { oid: `${COLUMNS.dot1dStpPortDesignatedBridge}.${port}`, value: port === 1 ? id(4096 + 7, 1) : id(32768 + 7, 5) },
    { oid: `${COLUMNS.dot1dStpPortDesignatedPort}.${port}`, value: Uint8Array.of(0x80, port === 1 ? 3 : 2) },
  ]),
];

test('a priority without the extension and a root port as an interface are read for what they are', () => {
  const [tree] = readSnmp(ODD, SOURCE).trees;
  expect(tree).toMatchObject({
    id: 'vlan-7',
    bridge: { priority: 32768 + 7 },
    root: { priority: 4103 },
    rootPort: 'g1',
  });
  expect(tree!.ports.map((p) => [p.port, p.role])).toEqual([
    ['g1', 'root'],
    ['g2', 'designated'],
  ]);
});

test('values of the wrong length are left out with a sentence each, and the rest is kept', () => {
  const wrong = ODD.map((r) =>
    r.oid === `${COLUMNS.dot1dStpPortDesignatedBridge}.2` ? { ...r, value: Uint8Array.of(1, 2) } : r,
  );
  const { unread, trees } = readSnmp(wrong, SOURCE);
  expect(unread).toEqual(['Row 2 of dot1dStpPortDesignatedBridge was left out: it is not 8 octets.']);
  expect(trees[0]!.ports.map((p) => p.role)).toEqual(['root', null]);
});

test('a walk of nothing that is asked for says what to walk', () => {
  expect(readSnmp([{ oid: '1.3.6.1.4.1.1.0', value: 3 }], SOURCE).unread[0]).toContain(
    'no object that tells of a bridge',
  );
});
