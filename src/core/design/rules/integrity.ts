/** Validation of what spans elements: unique names and numbers, references that lead somewhere, one cable a port. */
import { COST_RANGE } from '../../standard';
import type { Fault } from '../fault';
import { hostById, portById, portLabel, switchById } from '../look-ups';
import { bundleRules } from './bundles';
import { regionRules } from './regions';
import { rehearsalRules } from './script';
import type { Rule, RuleEntry, Touch } from './rule';
import type { Design, ListName, Port } from '../schema';
import type { Bundle } from '../bundle-schema';
import { documentMessages as say } from '../../messages';

function twice<T>(
  list: readonly T[],
  key: (item: T) => string | number,
  fault: (item: T, index: number, first: T) => Fault,
): Fault[] {
  const seen = new Map<string | number, T>();
  const faults: Fault[] = [];
  list.forEach((item, index) => {
    const k = key(item);
    const first = seen.get(k);
    if (first === undefined) seen.set(k, item);
    else faults.push(fault(item, index, first));
  });
  return faults;
}

const uniqueIds =
  (list: ListName): Rule =>
  (design) =>
    twice(
      design[list] as readonly { id: string }[],
      (e) => e.id,
      (e, i) => ({ code: 'duplicate-id', path: [list, i, 'id'], sentence: say.duplicateId(e.id) }),
    );

const vlanNumbers: Rule = ({ vlans }) =>
  twice(
    vlans,
    (v) => v.number,
    (v, i) => ({ code: 'duplicate-vlan', path: ['vlans', i, 'number'], sentence: say.duplicateVlan(v.number) }),
  );

const switchNames: Rule = ({ switches }) =>
  twice(
    switches,
    (s) => s.name,
    (s, i) => ({
      code: 'duplicate-name',
      path: ['switches', i, 'name'],
      sentence: say.duplicateName('switches', s.name),
    }),
  );

const switchMacs: Rule = ({ switches }) =>
  twice(
    switches,
    (s) => s.mac,
    (s, i, first) => ({
      code: 'duplicate-mac',
      path: ['switches', i, 'mac'],
      sentence: say.duplicateMac(s.mac, first.name, s.name),
    }),
  );

const hostNames: Rule = ({ hosts }) =>
  twice(
    hosts,
    (h) => h.name,
    (h, i) => ({
      code: 'duplicate-name',
      path: ['hosts', i, 'name'],
      sentence: say.duplicateName('hosts', h.name),
    }),
  );

/** Checks that ports and bundles share: the switch exists, name and number are its only ones, values fit. */
function portLike(design: Design, list: 'ports' | 'bundles'): Fault[] {
  const faults: Fault[] = [];
  (design[list] as readonly (Port | Bundle)[]).forEach((port, i) => {
    const owner = switchById(design, port.switch);
    if (!owner) {
      faults.push({ code: 'no-switch', path: [list, i, 'switch'], sentence: say.noSuch('switch', port.switch) });
      return;
    }
    const scale = owner.costScale ?? design.costScale;
    if (port.cost !== undefined && port.cost > COST_RANGE[scale].max)
      faults.push({ code: 'cost-range', path: [list, i, 'cost'], sentence: say.cost(port.cost, scale) });
    if (port.internalCost !== undefined && port.internalCost > COST_RANGE[scale].max)
      faults.push({
        code: 'cost-range',
        path: [list, i, 'internalCost'],
        sentence: say.cost(port.internalCost, scale),
      });
    for (const table of ['vlanCost', 'instanceCost'] as const)
      for (const [key, cost] of port[table] ? Object.entries(port[table]) : [])
        if (cost > COST_RANGE[scale].max)
          faults.push({ code: 'cost-range', path: [list, i, table, key], sentence: say.cost(cost, scale) });
  });
  return faults;
}

const portNumbers: Rule = (design) => {
  const label = (p: Port | Bundle) => switchById(design, p.switch)?.name ?? p.switch;
  const all = [
    ...design.ports.map((p, i) => ({ port: p, path: ['ports', i] as (string | number)[] })),
    ...design.bundles.map((b, i) => ({ port: b, path: ['bundles', i] as (string | number)[] })),
  ];
  return [
    ...twice(
      all,
      ({ port }) => `${port.switch}\n${port.number}`,
      ({ port, path }) => ({
        code: 'duplicate-port-number',
        path: [...path, 'number'],
        sentence: say.duplicatePortNumber(label(port), port.number),
      }),
    ),
    ...twice(
      all,
      ({ port }) => `${port.switch}\n${port.name}`,
      ({ port, path }) => ({
        code: 'duplicate-port-name',
        path: [...path, 'name'],
        sentence: say.duplicatePortName(label(port), port.name),
      }),
    ),
  ];
};

const cables: Rule = (design) => {
  const faults: Fault[] = [];
  const taken = new Map<string, string>();
  const take = (portId: string, by: string, path: (string | number)[]) => {
    if (!portById(design, portId))
      return void faults.push({ code: 'no-port', path, sentence: say.noSuch('port', portId) });
    const before = taken.get(portId);
    if (before !== undefined)
      faults.push({ code: 'port-taken', path, sentence: say.portTaken(portLabel(design, portId), before, by) });
    else taken.set(portId, by);
  };
  design.links.forEach((link, i) => {
    if ('port' in link.a && 'port' in link.b && link.a.port === link.b.port)
      return void faults.push({
        code: 'same-end',
        path: ['links', i],
        sentence: say.sameEnd(portLabel(design, link.a.port)),
      });
    if ('host' in link.a && 'host' in link.b)
      return void faults.push({ code: 'host-to-host', path: ['links', i], sentence: say.hostToHost() });
    for (const side of ['a', 'b'] as const) {
      const end = link[side];
      if ('port' in end) take(end.port, `link '${link.id}'`, ['links', i, side, 'port']);
      else if (!hostById(design, end.host))
        faults.push({ code: 'no-host', path: ['links', i, side, 'host'], sentence: say.noSuch('host', end.host) });
    }
  });
  design.segments.forEach((segment, i) =>
    segment.ports.forEach((port, j) => take(port, `segment '${segment.name}'`, ['segments', i, 'ports', j])),
  );
  return faults;
};

const members: Rule = (design) => {
  const faults: Fault[] = [];
  const taken = new Map<string, string>();
  design.bundles.forEach((bundle, i) =>
    bundle.members.forEach((id, j) => {
      const path = ['bundles', i, 'members', j];
      const port = portById(design, id);
      if (!port) return void faults.push({ code: 'no-port', path, sentence: say.noSuch('port', id) });
      if (port.switch !== bundle.switch)
        faults.push({
          code: 'foreign-member',
          path,
          sentence: say.foreignMember(bundle.name, portLabel(design, id)),
        });
      const before = taken.get(id);
      if (before !== undefined)
        faults.push({
          code: 'port-taken',
          path,
          sentence: say.portTaken(portLabel(design, id), `bundle '${before}'`, `bundle '${bundle.name}'`),
        });
      else taken.set(id, bundle.name);
    }),
  );
  return faults;
};

/** Each rule with what can break it. */
const RULES: readonly RuleEntry[] = [
  { after: ['vlan.*', 'vlan.id'], rule: uniqueIds('vlans') },
  { after: ['vlan.*', 'vlan.number'], rule: vlanNumbers },
  { after: ['switch.*', 'switch.id'], rule: uniqueIds('switches') },
  { after: ['switch.*', 'switch.name'], rule: switchNames },
  { after: ['switch.*', 'switch.mac'], rule: switchMacs },
  { after: ['port.*', 'port.id'], rule: uniqueIds('ports') },
  {
    after: [
      'port.*',
      'port.cost',
      'port.vlanCost',
      'port.instanceCost',
      'port.internalCost',
      'port.switch',
      'switch.*',
      'switch.costScale',
      'settings',
    ],
    rule: (d) => portLike(d, 'ports'),
  },
  {
    after: [
      'bundle.*',
      'bundle.cost',
      'bundle.vlanCost',
      'bundle.instanceCost',
      'bundle.internalCost',
      'bundle.switch',
      'switch.*',
      'switch.costScale',
      'settings',
    ],
    rule: (d) => portLike(d, 'bundles'),
  },
  {
    after: [
      'port.*',
      'port.name',
      'port.number',
      'port.switch',
      'bundle.*',
      'bundle.name',
      'bundle.number',
      'bundle.switch',
    ],
    rule: portNumbers,
  },
  { after: ['link.*', 'link.id'], rule: uniqueIds('links') },
  { after: ['segment.*', 'segment.id'], rule: uniqueIds('segments') },
  { after: ['link.*', 'link.a', 'link.b', 'segment.*', 'segment.ports', 'port.*', 'host.*'], rule: cables },
  { after: ['bundle.*', 'bundle.id'], rule: uniqueIds('bundles') },
  { after: ['bundle.*', 'bundle.members', 'bundle.switch', 'port.*', 'port.switch'], rule: members },
  { after: ['host.*', 'host.id'], rule: uniqueIds('hosts') },
  { after: ['host.*', 'host.name'], rule: hostNames },
  { after: ['region.*', 'region.id'], rule: uniqueIds('regions') },
  { after: ['pair.*', 'pair.id'], rule: uniqueIds('pairs') },
  { after: ['goal.*', 'goal.id'], rule: uniqueIds('goals') },
  { after: ['demand.*', 'demand.id'], rule: uniqueIds('demands') },
  { after: ['risk.*', 'risk.id'], rule: uniqueIds('risks') },
  { after: ['acceptance.*', 'acceptance.id'], rule: uniqueIds('accepted') },
  { after: ['workplace.*', 'workplace.id'], rule: uniqueIds('workplaces') },
  { after: ['reading.*', 'reading.id'], rule: uniqueIds('readings') },
  { after: ['note.*', 'note.id'], rule: uniqueIds('notes') },
  { after: ['cableCost.*', 'cableCost.id'], rule: uniqueIds('cableCosts') },
  ...regionRules,
  ...bundleRules,
  { after: ['script.*', 'script.id'], rule: uniqueIds('scripts') },
  ...rehearsalRules,
];

/**
 * What is wrong between the elements of a design whose elements are right by themselves; by all rules, or by those
 * that the given touches can break.
 */
export function integrityFaults(design: Design, touched?: ReadonlySet<Touch>): Fault[] {
  return RULES.filter(({ after }) => !touched || after.some((touch) => touched.has(touch))).flatMap(({ rule }) =>
    rule(design),
  );
}
