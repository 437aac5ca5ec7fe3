/** Observations of any sources as one network. */
import { bridgeIdWords, numberToMac } from '../../standard';
import type { ObservedNetwork, ObservedQuestion, ObservedSwitch } from '../../design';
import { observeMessages as say } from '../../messages';
import type { Observation, ObservedTree } from '../model';
import { cablesOf } from './cables';
import type { Cables } from './cables';
import { devicesOf } from './devices';
import { merge, treeNames } from './merge';
import type { Merged } from './merge';

function treesOf(
  all: readonly Merged[],
  nameOf: (id: string) => string,
  macs: ReadonlyMap<string, string>,
): ObservedNetwork['trees'] {
  const byId = new Map<string, { tree: ObservedTree; of: Merged }[]>();
  for (const m of all)
    for (const tree of m.trees) byId.set(nameOf(tree.id), [...(byId.get(nameOf(tree.id)) ?? []), { tree, of: m }]);
  return [...byId]
    .sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }))
    .map(([id, list]) => {
      const roots = list.flatMap(({ tree }) => (tree.root ? [tree.root] : []));
      // What most say; each of the others deviates, which is a finding of its own.
      const votes = new Map<string, number>();
      for (const r of roots) votes.set(numberToMac(r.mac), (votes.get(numberToMac(r.mac)) ?? 0) + 1);
      const [winner] = [...votes].sort((a, b) => b[1] - a[1])[0] ?? [null];
      const root = roots.find((r) => numberToMac(r.mac) === winner);
      return {
        id,
        root: winner === null ? null : (macs.get(winner) ?? (root ? bridgeIdWords(root) : winner)),
        ports: list.flatMap(({ tree, of }) =>
          tree.ports.map((p) => ({
            switch: of.device.name,
            port: p.port,
            role: p.role,
            state: p.state,
            cost: p.cost ?? null,
            ...(p.priority === undefined ? {} : { priority: p.priority }),
          })),
        ),
      };
    });
}

function bundlesOf(all: readonly Merged[], { links }: Cables): ObservedNetwork['bundles'] {
  const far = new Map<string, { switch: string; port: string }>();
  const key = (s: string, p: string) => `${s}\n${p}`;
  for (const { a, b } of links) {
    far.set(key(a.switch, a.port), b);
    far.set(key(b.switch, b.port), a);
  }
  const holder = new Map(
    all.flatMap((m) =>
      m.aggregates.flatMap((a) => a.members.map((x) => [key(m.device.name, x.port), a.name] as const)),
    ),
  );
  return all.flatMap((m) =>
    m.aggregates.map((a) => {
      const end = a.members.map((x) => far.get(key(m.device.name, x.port))).find((e) => e !== undefined);
      const party = a.members.find((x) => x.partner)?.partner;
      const number = m.ports.get(a.name.toLowerCase())?.number;
      return {
        switch: m.device.name,
        name: a.name,
        ...(number === undefined ? {} : { number }),
        members: a.members.map((x) => x.port),
        active: a.members.filter((x) => x.active).map((x) => x.port),
        mode: a.mode,
        ...(a.activity ? { activity: a.activity } : {}),
        ...(a.timeout ? { timeout: a.timeout } : {}),
        ...(a.minActive === undefined ? {} : { minActive: a.minActive }),
        ...(a.key === undefined ? {} : { key: a.key }),
        ...(a.system === undefined ? {} : { system: a.system }),
        ...(a.systemPriority === undefined ? {} : { systemPriority: a.systemPriority }),
        partner:
          end || party
            ? {
                switch: end?.switch ?? null,
                name: end ? (holder.get(key(end.switch, end.port)) ?? null) : null,
                system: party?.system ?? null,
                key: party?.key ?? null,
              }
            : null,
      };
    }),
  );
}

/** A device that is known by what its neighbours heard of it. */
const stranger = (name: string, mac: string | null, ports: Iterable<string>): ObservedSwitch => ({
  name,
  mac,
  priority: null,
  priorities: {},
  protocol: null,
  timers: {},
  region: null,
  vlans: [],
  ports: [...ports].map((p) => ({ name: p })),
  source: [],
});

/** Ports that are up and lead nowhere that is known, in one question a switch. */
function openEnds(all: readonly Merged[], { links, segments }: Cables): ObservedQuestion[] {
  const led = new Set(
    [...links.flatMap((l) => [l.a, l.b]), ...segments.flatMap((s) => s.ports)].map((e) => `${e.switch}\n${e.port}`),
  );
  return all.flatMap((m): ObservedQuestion[] => {
    const bundles = new Set(m.aggregates.map((a) => a.name));
    const open = [...m.ports.values()].filter(
      (p) => p.up === true && !p.edge && !bundles.has(p.name) && !led.has(`${m.device.name}\n${p.name}`),
    );
    const crowded = crowdedPorts(m).filter((p) => !led.has(`${m.device.name}\n${p.name}`) && !bundles.has(p.name));
    const behind = crowded.map(({ name, n }): ObservedQuestion => {
      const text = say['many-behind']({ port: `${m.device.name} ${name}`, n });
      return { kind: 'inferred', switch: m.device.name, port: name, text };
    });
    const quiet = open.filter((p) => !crowded.some((c) => c.name === p.name));
    if (quiet.length === 0) return behind;
    const text = say['open-ends']({ name: m.device.name, ports: quiet.map((p) => p.name) });
    return [...behind, { kind: 'incomplete', switch: m.device.name, port: quiet[0]!.name, text }];
  });
}

/** Addresses beyond these at a port that leads to no known device are more than an end device has. */
const ONE_DEVICE = 2;

/** Ports at which the MAC table holds the addresses of several devices. */
function crowdedPorts(m: Merged): { name: string; n: number }[] {
  const learned = new Map<string, Set<string>>();
  for (const { port, mac } of m.device.of.flatMap((o) => o.learned)) {
    const name = m.portName(port);
    learned.set(name, (learned.get(name) ?? new Set()).add(mac));
  }
  return [...learned].flatMap(([name, { size }]) =>
    size > ONE_DEVICE && m.ports.get(name.toLowerCase())?.up === true ? [{ name, n: size }] : [],
  );
}

/** One network out of any observations, with what is not certain about it as questions. */
export function unite(observations: readonly Observation[]): ObservedNetwork {
  const { devices, questions } = devicesOf(observations);
  const treeName = treeNames(observations);
  const all = devices.map((d) => merge(d, treeName, questions));
  const cables = cablesOf(all, questions);
  const macs = new Map(devices.flatMap((d) => (d.mac ? [[d.mac, d.name] as const] : [])));
  const strangers = [...cables.strangers].map(([name, { mac, ports }]) => stranger(name, mac, ports));
  for (const s of strangers)
    questions.push({ kind: 'incomplete', switch: s.name, port: null, text: say['neighbours-only']({ name: s.name }) });
  questions.push(...openEnds(all, cables));
  return {
    switches: [...all.map((m) => m.of), ...strangers],
    links: cables.links,
    segments: cables.segments,
    bundles: bundlesOf(all, cables),
    trees: treesOf(all, treeName, macs),
    questions,
  };
}
