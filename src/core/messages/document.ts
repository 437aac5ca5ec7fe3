/** Every sentence about a faulty value, in one place: what is wrong, and what would be right. */
import {
  ACTIVE_MEMBERS,
  BRIDGE_PRIORITY,
  COST_RANGE,
  INSTANCE_ID,
  LACP_KEY,
  LACP_PRIORITY,
  MAX_HOPS,
  MOST_INSTANCES,
  PAIR_DOMAIN,
  PAIR_PORT_OFFSET,
  PORT_NUMBER,
  PORT_PRIORITY,
  REGION_NAME_OCTETS,
  REVISION,
  TIMERS,
  VLAN_ID,
  nearestLegal,
} from '../standard';
import type { CostScale } from '../standard';

/** A caller's own text, as much of it as a sentence repeats. */
export const clipped = (text: string, most = 60): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** A value from outside as it was given; an object from a file may have no text form of its own, so JSON it is. */
const shown = (value: unknown): string => {
  if (typeof value === 'string') return `'${clipped(value)}'`;
  if (value === undefined) return '(nothing)';
  if (typeof value === 'number' && Number.isNaN(value)) return '(not a number)';
  const text = typeof value === 'object' && value !== null ? JSON.stringify(value) : String(value);
  return text.length > 60 ? `${text.slice(0, 59)}…` : text;
};

/** Stands for the sentence about a missing value until it is known what it is missing from. */
export const MISSING_VALUE = '(missing)';

export const NAME_LENGTH = 100;
export const SHEET_EDGE = 100_000;

/** What an element cannot be without, by `kind.field` where the kind matters. */
const NEEDS: Readonly<Record<string, string>> = {
  id: 'an id',
  name: `a name of 1 to ${NAME_LENGTH} characters`,
  mac: 'a MAC address such as 00:00:5e:00:53:01',
  'vlan.number': `a number from ${VLAN_ID.min} to ${VLAN_ID.max}`,
  number: `a number from ${PORT_NUMBER.min} to ${PORT_NUMBER.max}`,
  speed: 'a speed in Mb/s, from 1 to 1000000',
  switch: 'the id of a switch',
  a: 'an end a: {"port": id} or {"host": id}',
  b: 'an end b: {"port": id} or {"host": id}',
  port: 'the id of a port',
  host: 'the id of a host',
  members: 'a list of member ports',
  ports: 'a list of ports',
  switches: 'a list of switches',
  vlans: 'a list of VLANs',
  kind: 'a kind',
  type: 'a type',
  domain: `a domain from ${PAIR_DOMAIN.min} to ${PAIR_DOMAIN.max}`,
  revision: `a revision from ${REVISION.min} to ${REVISION.max}`,
  mode: 'a spanning tree mode',
  costScale: 'a cost scale: long or short',
  bundleCost: 'a rule for the cost of bundles: active or configured',
  'reading.at': 'a time such as 2026-03-01T09:30:00.000Z',
  packed: 'what was read, packed',
};

const sentences = {
  bridgePriority: (value: unknown) =>
    typeof value === 'number' && Number.isFinite(value)
      ? `Bridge priority ${value} is not legal: it goes in steps of ${BRIDGE_PRIORITY.step} from 0 to ${BRIDGE_PRIORITY.max}; the nearest is ${nearestLegal(value, BRIDGE_PRIORITY)}.`
      : `Bridge priority ${shown(value)} is not a number: it goes in steps of ${BRIDGE_PRIORITY.step} from 0 to ${BRIDGE_PRIORITY.max}.`,
  portPriority: (value: unknown) =>
    typeof value === 'number' && Number.isFinite(value)
      ? `Port priority ${value} is not legal: it goes in steps of ${PORT_PRIORITY.step} from 0 to ${PORT_PRIORITY.max}; the nearest is ${nearestLegal(value, PORT_PRIORITY)}.`
      : `Port priority ${shown(value)} is not a number: it goes in steps of ${PORT_PRIORITY.step} from 0 to ${PORT_PRIORITY.max}.`,
  portNumber: (value: unknown) =>
    `Port number ${shown(value)} is not legal: a whole number from ${PORT_NUMBER.min} to ${PORT_NUMBER.max}.`,
  cost: (value: unknown, scale: CostScale = 'long') =>
    `Port path cost ${shown(value)} is not legal: a whole number from ${COST_RANGE[scale].min} to ${COST_RANGE[scale].max} on the ${scale === 'long' ? '32-bit' : '16-bit'} scale.`,
  vlan: (value: unknown) =>
    `VLAN ${shown(value)} is not legal: VLAN numbers run from ${VLAN_ID.min} to ${VLAN_ID.max} (0 and 4095 are reserved).`,
  vlanSet: (value: unknown, part: string, reason: string) =>
    `VLAN list ${shown(value)} cannot be read at '${clipped(part)}' (${
      { 'out-of-range': `numbers run from ${VLAN_ID.min} to ${VLAN_ID.max}`, backwards: 'the range runs backwards' }[
        reason
      ] ?? 'not a number'
    }): write numbers and ranges such as 110-140,199, or all.`,
  vlanList: (value: unknown) =>
    `VLAN list ${shown(value)} cannot be read: write numbers and ranges such as 110-140,199, or all.`,
  mac: (value: unknown) =>
    `MAC address ${shown(value)} cannot be read: write six octets in hex, such as 00:00:5e:00:53:01.`,
  groupMac: (value: unknown) =>
    `MAC address ${shown(value)} is a group address: a switch needs an individual one, with an even first octet.`,
  name: (value: unknown) =>
    typeof value === 'string' && value.length > NAME_LENGTH
      ? `The name '${value.slice(0, 24)}…' has ${value.length} characters: at most ${NAME_LENGTH} are allowed.`
      : `A name is missing: give one of 1 to ${NAME_LENGTH} characters.`,
  speed: (value: unknown) => `Speed ${shown(value)} is not legal: a whole number of Mb/s from 1 to 1000000.`,
  oneOf: (what: string, value: unknown, legal: readonly string[]) =>
    `${what} ${shown(value)} is not known: it is one of ${legal.join(', ')}.`,
  coordinate: (value: unknown) =>
    `Position ${shown(value)} is not on the sheet: a number from -${SHEET_EDGE} to ${SHEET_EDGE}.`,
  time: (value: unknown) => `Time ${shown(value)} is not one: it reads like 2026-03-01T09:30:00.000Z.`,
  packed: () => 'The packed reading is damaged: it is base64 of compressed JSON.',
  tooLong: (what: string, length: number, limit: number) =>
    `${what} has ${length} characters: at most ${limit} are allowed.`,
  idFixed: (id: string) => `The id '${id}' cannot be changed: change the name instead.`,
  missing: (what: string) => `${what} is missing.`,
  needs: (owner: string, field: string) =>
    `${owner} needs ${NEEDS[field] ?? NEEDS[field.replace(/^.*\./, '')] ?? `the field '${clipped(field.replace(/^.*\./, ''))}'`}.`,
  outOfRange: (what: string, limit: number | bigint, side: 'most' | 'least') =>
    `${what} is out of range: at ${side} ${limit} ${side === 'most' ? 'is' : 'are'} allowed.`,
  noneOfThese: (what: string) => `${what} has none of the forms that are allowed here.`,
  notOneOf: (what: string, values: readonly unknown[]) =>
    `${what} is not known: it is one of ${values.map(String).join(', ')}.`,
  tooDeep: (limit: number) => `The value is nested too deeply: at most ${limit} levels are read.`,
  tooManyParts: (limit: number) => `The value has too many parts: at most ${limit} are read.`,
  noJson: () =>
    'The value is not a JSON value: text, finite numbers, true, false, null, lists and objects of these are.',
  noSuchField: (kind: string, field: string) => `A ${kind} has no field '${clipped(field)}'.`,
  noTable: (kind: string, field: string) =>
    `The field '${clipped(field)}' of a ${kind} has no entries by number: set the field as a whole.`,
  unknownField: (names: readonly string[]) =>
    `${names.length === 1 ? 'The field' : 'The fields'} ${names.map((n) => `'${n}'`).join(', ')} ${names.length === 1 ? 'is' : 'are'} not part of the design format.`,
  wrongType: (expected: string) => `The value has the wrong kind: ${expected} belongs here.`,

  duplicateId: (id: string) => `The id '${id}' is used twice: every id is unique within its list.`,
  duplicateName: (what: string, name: string) => `Two ${what} are called '${name}': names must differ.`,
  duplicateMac: (mac: string, first: string, second: string) =>
    `Switches '${first}' and '${second}' have the same MAC address ${mac}: the last tie-break needs different ones.`,
  duplicateVlan: (number: number) => `VLAN ${number} is listed twice.`,
  duplicatePortNumber: (where: string, number: number) =>
    `Switch '${where}' has port number ${number} twice: port identifiers must differ on one switch.`,
  duplicatePortName: (where: string, name: string) => `Switch '${where}' has two ports called '${name}'.`,
  noSuch: (what: string, id: string) => `There is no ${what} '${id}' in this design.`,
  portTaken: (port: string, first: string, second: string) =>
    `Port ${port} is in ${first} and in ${second}: a port takes one cable.`,
  sameEnd: (port: string) => `Both ends of the link are port ${port}: a link needs two different ends.`,
  foreignMember: (bundle: string, port: string) =>
    `Port ${port} cannot be a member of bundle '${bundle}': it sits on another switch.`,
  hostToHost: () => 'A link between two hosts does not pass a switch: one end must be a switch port.',
  nativeNotCarried: (native: number) =>
    `Native VLAN ${native} is not among the VLANs of the port: add it, or choose one that is.`,
  laterVersion: (found: unknown, known: number) =>
    `This design file has format version ${shown(found)}; this release reads up to version ${known}. Open it with a newer release.`,
  notADesign: () => 'This file is not a Knot Path design: a design is a JSON object with "format": "knot-path-design".',
  brokenJson: (detail: string) => `The file is not complete JSON: ${detail}.`,
  notUtf8: () => 'The file is not in UTF-8: save it in UTF-8.',
  duplicateKey: (key: string) => `The key '${clipped(key)}' stands twice in one object: each key stands once.`,
  noteText: () => 'A note needs words.',
  acceptanceReason: () => 'An accepted finding needs a reason.',
  noEditTarget: (kind: string, id: string) => `The ${kind} '${id}' that should change is not in the design.`,
  instance: (value: unknown) =>
    String(value) === '0'
      ? 'Instance 0 is the CIST and cannot be edited: it has every VLAN that is in no other instance. Move VLANs into or out of the others.'
      : `Instance ${shown(value)} is not legal: instances run from ${INSTANCE_ID.min} to ${INSTANCE_ID.max}; 0 is the CIST.`,
  regionName: (value: unknown) =>
    typeof value === 'string'
      ? `The region name '${value.length > 40 ? `${value.slice(0, 40)}…` : value}' has ${new TextEncoder().encode(value).length} octets: at most ${REGION_NAME_OCTETS} are allowed.`
      : `Region name ${shown(value)} is not a text: give one of at most ${REGION_NAME_OCTETS} octets.`,
  revision: (value: unknown) =>
    `Revision ${shown(value)} is not legal: a whole number from ${REVISION.min} to ${REVISION.max}.`,
  maxHops: (value: unknown) =>
    `Maximum hops ${shown(value)} is not legal: a whole number from ${MAX_HOPS.min} to ${MAX_HOPS.max}.`,
  hops: (value: unknown) => `Number of hops ${shown(value)} is not legal: a whole number from 0 to 64.`,
  percent: (value: unknown) =>
    `Share of a link ${shown(value)} is not legal: a whole number of percent from 1 to 1000.`,
  cableCost: (value: unknown) =>
    `Cost of a cable ${shown(value)} is not legal: a number from 0 to 10000, or none where no cable can be laid.`,
  load: (value: unknown) => `Load ${shown(value)} is not legal: Mb/s from 0 to 1000000.`,
  lacpPriority: (what: string, value: unknown) =>
    `${what} priority ${shown(value)} is not legal: LACP priorities are whole numbers from ${LACP_PRIORITY.min} to ${LACP_PRIORITY.max}.`,
  lacpKey: (value: unknown) =>
    `Key ${shown(value)} is not legal: a whole number from ${LACP_KEY.min} to ${LACP_KEY.max}.`,
  members: (what: string, value: unknown) =>
    `${what} of active members ${shown(value)} is not legal: a whole number from ${ACTIVE_MEMBERS.min} to ${ACTIVE_MEMBERS.max}; members beyond the maximum wait as standby.`,
  sharedNumber: (value: unknown) =>
    `Shared number ${shown(value)} is not legal: a whole number from ${PORT_NUMBER.min} to ${PORT_NUMBER.max}, the same at both switches of the pair.`,
  domain: (value: unknown) =>
    `Domain ${shown(value)} is not legal: a whole number from ${PAIR_DOMAIN.min} to ${PAIR_DOMAIN.max}.`,
  pairOfOne: (name: string) => `Switch '${name}' cannot be a pair with itself: a pair is two different switches.`,
  pairTaken: (name: string) => `Switch '${name}' is in two pairs: a switch is in one pair only.`,
  domainTaken: (domain: number) => `Domain ${domain} is used by two pairs: each pair has one of its own.`,
  sharedAlone: (bundle: string) =>
    `Bundle '${bundle}' has a shared number, but its switch is in no pair: make the pair first, or take the number away.`,
  sharedTwice: (bundle: string, shared: number) =>
    `Bundle '${bundle}' has shared number ${shared}, which another bundle of its switch has already: one bundle of each switch of the pair has it.`,
  pairPortNumber: (port: string) =>
    `Port ${port} of a pair has a number above ${PAIR_PORT_OFFSET - 1}: the ports of the second switch of a pair are counted on from ${PAIR_PORT_OFFSET}, so that both stay below.`,
  seconds: (value: unknown) =>
    `Time ${shown(value)} is not legal: seconds from 0 to 36000, with up to six digits behind the point.`,
  micros: (value: unknown) => `Delay ${shown(value)} is not legal: a whole number of microseconds from 0 to 1000000.`,
  seed: (value: unknown) => `Seed ${shown(value)} is not legal: a whole number from 0 to 1000000.`,
  outage: (value: unknown) => `Longest outage ${shown(value)} is not legal: 0 to 3600 seconds.`,
  answersEvery: (value: unknown) =>
    `How often the second host of a pair speaks must be a number of seconds from 0.1 to 86 400, or "never", not ${shown(value)}.`,
  helloSpread: (value: unknown) =>
    `Spread of hellos ${shown(value)} is not legal: a whole number of milliseconds from 0 (all at once) to 10000.`,
  times: (value: unknown) => `Number of flaps ${shown(value)} is not legal: a whole number from 1 to 1000.`,
  flapSeconds: (value: unknown) => `Time between flaps ${shown(value)} is not legal: 0.001 to 3600 seconds.`,
  timer: (which: 'helloTime' | 'maxAge' | 'forwardDelay' | 'holdCount' | 'ageingTime', value: unknown) => {
    const words = {
      helloTime: 'Hello time',
      maxAge: 'Maximum age',
      forwardDelay: 'Forward delay',
      holdCount: 'Hold count',
      ageingTime: 'Ageing time',
    };
    return `${words[which]} ${shown(value)} is not legal: a whole number from ${TIMERS[which].min} to ${TIMERS[which].max}.`;
  },
  timersTogether: (at: string, hello: number, age: number, delay: number) =>
    `The timers of '${at}' do not go together: 2 × (forward delay − 1) = ${2 * (delay - 1)} must be at least the maximum age ${age}, and that at least 2 × (hello + 1) = ${2 * (hello + 1)}.`,
  maxTrees: (value: unknown) =>
    `Spanning trees at most ${shown(value)} is not legal: a whole number from 1 to 4094, or none.`,
  recovery: (value: unknown) =>
    `Recovery after ${shown(value)} is not legal: a whole number of seconds from 30 to 86400, or none.`,
  oneWayInterval: (value: unknown) =>
    `Keepalive interval ${shown(value)} is not legal: a whole number of seconds from 1 to 90.`,
  stormLimit: (value: unknown) => `Storm limit ${shown(value)} is not legal: a whole number from 1 to 100 per cent.`,
  minRate: (value: unknown) =>
    `Minimum rate ${shown(value)} is not legal: a whole number of Mb/s from 1 to 1000000, or none.`,
  returnDelay: (value: unknown) =>
    `Waiting for ${shown(value)} is not legal: a whole number of seconds from 0 to 3600.`,
  eventBeyond: (script: string, at: number, until: number) =>
    `Script '${script}' has an event at ${at} s, beyond its end at ${until} s: it would never happen. Move the event, or rehearse longer.`,
  minAboveMax: (bundle: string, min: number, max: number) =>
    `Bundle '${bundle}' needs ${min} active members but lets at most ${max} be active: it could never come up.`,
  minAboveMembers: (bundle: string, min: number, count: number) =>
    `Bundle '${bundle}' needs ${min} active members but has ${count}: it could never come up. Add members, or lower the minimum.`,
  minRateAboveMembers: (bundle: string, rate: number, sum: number) =>
    `Bundle '${bundle}' needs ${rate} Mb/s but its members have ${sum} Mb/s together: it could never come up. Add members, or lower the minimum rate.`,
  vlanTwice: (region: string, vlan: number, first: string, second: string) =>
    `VLAN ${vlan} is in instance ${first} and in instance ${second} of region '${region}': a VLAN is in one instance only.`,
  tooManyInstances: (where: string, count: number) =>
    `${where} has ${count} instances: at most ${MOST_INSTANCES} are allowed.`,
  sameSwitchTwice: (name: string) => `Switch '${name}' has two ranks in one tree: a switch is first or next, not both.`,
} as const;

/** Characters of a caller's own text that a sentence repeats at most. */
const MOST_REPEATED = 200;
const MOST_NAMES = 8;

/** A parameter of a sentence, not longer than can be read. */
const readable = (value: unknown): unknown =>
  typeof value === 'string'
    ? clipped(value, MOST_REPEATED)
    : Array.isArray(value)
      ? value.slice(0, MOST_NAMES).map((v) => (typeof v === 'string' ? clipped(v) : v))
      : value;

/** They count what was given, and shorten it themselves. */
const COUNTING: readonly string[] = ['name', 'regionName'];

/** Every sentence; what a caller gave is repeated in part only. */
export const documentMessages = Object.fromEntries(
  Object.entries(sentences).map(([name, sentence]) => [
    name,
    (...parameters: unknown[]) =>
      (sentence as (...p: unknown[]) => string)(...(COUNTING.includes(name) ? parameters : parameters.map(readable))),
  ]),
) as unknown as typeof sentences;
