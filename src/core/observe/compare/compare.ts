/** An observed network against a design: device by device, field by field. */
import { isClassicMode, isPerVlan, modeOf, portsOf, timersOf } from '../../design';
import type { Bundle, Design, ObservedNetwork, ObservedSwitch, Port, Switch } from '../../design';
import { actingThrough, mstConfigOf } from '../../network';
import {
  BRIDGE_PRIORITY,
  LACP_PRIORITY,
  TIMERS,
  formatVlanRanges,
  parseVlanRanges,
  parseTreeId,
  vlanMembership,
} from '../../standard';
import { solveDesign } from '../../trees';
import { answeringDesign } from '../acting';
import { bundlesAgainst } from './bundles';
import { compareCables } from './cables';
import { compareTrees } from './trees';
import { elementCalled, switchCalled } from '../draw/names';
import type { Difference } from './difference';
import { differing } from './fields';
import type { Pair } from './fields';

/** Protocol and whether a tree per VLAN: a device that tells of one tree does not say whether it has others. */
function protocolPair(design: Design, s: Switch, o: ObservedSwitch): Pair[] {
  if (o.protocol === null) return [];
  const mode = modeOf(design, s);
  const family = mode === 'mstp' ? 'mstp' : isClassicMode(mode) ? 'stp' : 'rstp';
  if (family !== o.protocol) return [['mode', mode, o.perVlan ? `per-vlan-${o.protocol}` : o.protocol]];
  return o.perVlan && !isPerVlan(mode) ? [['mode', mode, `per-vlan-${o.protocol}`]] : [];
}

/** Priority of a switch in a tree as observed networks name it. */
function effectivePriority(design: Design, s: Switch, tree: string): number {
  const parts = parseTreeId(tree);
  const mode = modeOf(design, s);
  const own =
    parts?.kind === 'vlan' || (parts?.kind === 'common' && isPerVlan(mode))
      ? s.vlanPriority?.[parts.kind === 'vlan' ? parts.vlan : 1]
      : mode === 'mstp' && (parts?.kind === 'instance' || parts?.kind === 'common')
        ? s.instancePriority?.[parts.kind === 'instance' ? parts.instance : 0]
        : undefined;
  return own ?? s.priority ?? BRIDGE_PRIORITY.default;
}

function switchPairs(design: Design, s: Switch, o: ObservedSwitch): Pair[] {
  const timers = timersOf(s);
  const region = modeOf(design, s) === 'mstp' && o.region ? mstConfigOf(design, s) : null;
  return [
    ['MAC address', s.mac, o.mac],
    ...protocolPair(design, s, o),
    ...Object.entries(o.priorities).map(([tree, p]): Pair => [
      Object.keys(o.priorities).length === 1 ? 'priority' : `priority in ${tree}`,
      effectivePriority(design, s, tree),
      p,
    ]),
    ['hello time', timers.helloTime, o.timers.helloTime],
    ['maximum age', timers.maxAge, o.timers.maxAge],
    ['forward delay', timers.forwardDelay, o.timers.forwardDelay],
    ['ageing time', s.ageingTime ?? TIMERS.ageingTime.default, o.timers.ageingTime],
    ['hold count', s.holdCount ?? TIMERS.holdCount.default, o.timers.holdCount],
    ...(region && o.region
      ? ([
          ['region name', region.name, o.region.name],
          ['revision', region.revision, o.region.revision],
          ['configuration digest', region.digest, o.region.digest],
        ] satisfies Pair[])
      : []),
  ];
}

/** The part of a set of VLANs that the design has; the others are differences of their own. */
function within(set: string, all: readonly number[]): string {
  const parsed = parseVlanRanges(set);
  const carried = set === 'all' ? vlanMembership('all') : null;
  return formatVlanRanges(all.filter((v) => (carried ? carried[v] === 1 : parsed.ok && parsed.vlans.includes(v))));
}

function elementPairs(
  design: Design,
  e: Port | Bundle,
  o: ObservedSwitch['ports'][number],
  device: ObservedSwitch,
): Pair[] {
  // A device knows the VLANs that it has; of others it cannot say that a port carries them.
  const has = new Set(device.vlans.map((v) => v.number));
  const all = design.vlans.map((v) => v.number).filter((v) => has.has(v));
  const port = 'members' in e ? null : e;
  return [
    ...(port
      ? ([
          ['number', port.number, o.number],
          ['duplex', port.duplex ?? 'full', o.duplex],
          ['enabled', !port.down, o.enabled],
          ['LACP port priority', port.lacpPriority ?? LACP_PRIORITY.default, o.lacpPriority],
        ] satisfies Pair[])
      : []),
    ['edge port', e.edge === true, o.adminEdge],
    ...(o.vlans === undefined
      ? []
      : ([['VLANs', within(e.vlans ?? 'all', all), within(o.vlans, all)]] satisfies Pair[])),
    ...(o.vlans === undefined ? [] : ([['untagged VLAN', e.native ?? 'none', o.native ?? 'none']] satisfies Pair[])),
  ];
}

function elementsOf(design: Design, s: Switch, o: ObservedSwitch, observed: ObservedNetwork): Difference[] {
  const bundles = observed.bundles.filter((b) => b.switch === o.name);
  const seen = new Set<string>();
  const found = o.ports.flatMap((p): Difference[] => {
    const e = elementCalled(design, s, p.name);
    if (!e) return unexpectedPort(s, o, p.name, observed);
    seen.add(e.id);
    return differing(`${s.name} ${e.name}`, elementPairs(design, e, p, o), {
      switch: s.id,
      element: e.id,
      kind: 'members' in e ? 'bundle' : 'port',
    });
  });
  const told = o.source.length > 0 && o.ports.some((p) => p.up !== undefined);
  const missing = told
    ? portsOf(design, s.id)
        .filter((p) => !seen.has(p.id))
        .map((p): Difference => ({
          device: `${s.name} ${p.name}`,
          field: 'port',
          designed: p.name,
          observed: null,
          verdict: 'missing',
          switch: s.id,
          element: p.id,
          kind: 'port',
        }))
    : [];
  return [...found, ...missing, ...bundlesAgainst(design, s, o, bundles)];
}

/** A port that the design does not have matters where something is plugged into it. */
function unexpectedPort(s: Switch, o: ObservedSwitch, name: string, observed: ObservedNetwork): Difference[] {
  const led = [...observed.links.flatMap((l) => [l.a, l.b]), ...observed.segments.flatMap((x) => x.ports)];
  if (!led.some((e) => e.switch === o.name && e.port === name)) return [];
  if (observed.bundles.some((b) => b.switch === o.name && b.name === name)) return [];
  return [
    {
      device: `${s.name} ${name}`,
      field: 'port',
      designed: null,
      observed: name,
      verdict: 'unexpected',
      switch: s.id,
      element: null,
      kind: 'port',
    },
  ];
}

function vlansAgainst(design: Design, observed: ObservedNetwork): Difference[] {
  const have = new Set(design.vlans.map((v) => v.number));
  const holders = new Map<number, string[]>();
  for (const o of observed.switches)
    for (const v of o.vlans) if (!have.has(v.number)) holders.set(v.number, [...(holders.get(v.number) ?? []), o.name]);
  return [...holders].map(([vlan, names]) => ({
    device: names.join(', '),
    field: `VLAN ${vlan}`,
    designed: null,
    observed: 'there',
    verdict: 'unexpected',
    switch: null,
    element: null,
    kind: 'vlan' as const,
  }));
}

/** Everything in which an observed network and a design differ, worst first; empty where it is as designed. */
export function compareWithDesign(drawn: Design, observed: ObservedNetwork): Difference[] {
  // A pair that acts as one is read as one, unless both of its switches were.
  const both = drawn.pairs.some((p) =>
    p.switches.every((id) => observed.switches.some((o) => switchCalled(drawn, o.name, o.mac)?.id === id)),
  );
  const design = both ? drawn : answeringDesign(drawn);
  const differences: Difference[] = [];
  const seen = new Set<string>();
  for (const o of observed.switches) {
    const s = switchCalled(design, o.name, o.mac);
    if (!s) {
      differences.push({
        device: o.name,
        field: 'switch',
        designed: null,
        observed: o.mac ?? o.name,
        verdict: 'unexpected',
        switch: null,
        element: null,
        kind: 'switch',
      });
      continue;
    }
    seen.add(s.id);
    differences.push(
      ...differing(s.name, switchPairs(design, s, o), { switch: s.id, element: s.id, kind: 'switch' }),
      ...elementsOf(design, s, o, observed),
    );
    if (o.source.length === 0)
      differences.push({
        device: s.name,
        field: 'settings',
        designed: null,
        observed: null,
        verdict: 'not-observed',
        switch: s.id,
        element: s.id,
        kind: 'switch',
      });
  }
  // The second of a pair that was read as one is in the first.
  const inside = both ? new Map<string, string>() : actingThrough(drawn);
  for (const s of design.switches)
    if (!seen.has(s.id) && !inside.has(s.id))
      differences.push({
        device: s.name,
        field: 'switch',
        designed: s.mac,
        observed: null,
        verdict: 'not-observed',
        switch: s.id,
        element: s.id,
        kind: 'switch',
      });
  const solved = solveDesign(design);
  differences.push(
    ...compareCables(solved, observed),
    ...vlansAgainst(design, observed),
    ...compareTrees(solved, observed),
  );
  return differences;
}
