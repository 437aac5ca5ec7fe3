/** An observed network as a design of its own. */
import { Macs } from '../../editing';
import { DESIGN_FORMAT, DESIGN_VERSION, emptyDesign, readDesign } from '../../design';
import type { Design, Mode, ObservedEnd, ObservedNetwork, ObservedQuestion, ObservedSwitch } from '../../design';
import { observeMessages as say } from '../../messages';
import { BRIDGE_PRIORITY, LACP_PRIORITY, TIMERS } from '../../standard';
import { drawCosts } from './costs';
import { Numbers, given, prevailing, regionsOf, scaleOf, vlansFor } from './parts';
import type { Json } from './parts';

type List = 'vlans' | 'switches' | 'ports' | 'links' | 'segments' | 'bundles' | 'regions';

export interface Drawing {
  readonly design: Design;
  /** What stayed out of the drawing, and why. */
  readonly questions: readonly ObservedQuestion[];
}

const modeOf = (s: ObservedSwitch): Mode | null =>
  s.protocol === null ? null : s.perVlan && s.protocol !== 'mstp' ? `per-vlan-${s.protocol}` : s.protocol;

/** A port of which only the number is known is called by that, unless another one is. */
function nameFor(p: ObservedSwitch['ports'][number], s: ObservedSwitch): string {
  const bare = p.name.replace(/^#/, '');
  return s.ports.some((o) => o.name === bare) ? p.name : bare;
}

class Draughtsman {
  readonly lists: Record<List, Json[]> = {
    vlans: [],
    switches: [],
    ports: [],
    links: [],
    segments: [],
    bundles: [],
    regions: [],
  };
  private readonly portIds = new Map<string, string>();
  readonly mode: Mode;
  readonly scale: 'long' | 'short';
  readonly vlanNumbers: number[];

  constructor(readonly observed: ObservedNetwork) {
    const { switches } = observed;
    this.mode = prevailing(switches.map(modeOf)) ?? emptyDesign('').mode;
    this.scale = prevailing(switches.map((s) => scaleOf(observed, s))) ?? 'long';
    const names = new Map<number, string | null>();
    for (const { number, name } of switches.flatMap((s) => s.vlans)) names.set(number, names.get(number) ?? name);
    for (const t of observed.trees) {
      const vlan = /^vlan-(\d+)$/.exec(t.id);
      if (vlan && !names.has(Number(vlan[1]))) names.set(Number(vlan[1]), null);
    }
    if (names.size === 0) names.set(1, 'default');
    this.vlanNumbers = [...names.keys()].sort((a, b) => a - b);
    this.lists.vlans = this.vlanNumbers.map((number) =>
      given({ id: `v${number}`, number, name: names.get(number) || undefined }),
    );
  }

  switches(regions: ReadonlyMap<string, string>): void {
    const macs = new Macs({
      switches: this.observed.switches.flatMap((s) => (s.mac ? [{ mac: s.mac }] : [])) as unknown as Design['switches'],
    });
    const firstRegion = [...regions.values()][0];
    this.observed.switches.forEach((s, i) => {
      const id = `s${i + 1}`;
      const mode = modeOf(s);
      const scale = scaleOf(this.observed, s);
      const region = regions.get(s.name);
      const timers = (['helloTime', 'maxAge', 'forwardDelay', 'holdCount', 'ageingTime'] as const).flatMap((t) => {
        const value = s.timers[t];
        return value === undefined || value === TIMERS[t].default ? [] : [[t, value] as const];
      });
      this.lists.switches.push(
        given({
          id,
          name: s.name,
          mac: s.mac ?? macs.next(),
          priority: s.priority === null || s.priority === BRIDGE_PRIORITY.default ? undefined : s.priority,
          ...this.priorities(s),
          protocol: mode === null || mode === this.mode ? undefined : mode,
          costScale: scale === null || scale === this.scale ? undefined : scale,
          region: region === undefined || region === firstRegion ? undefined : region,
          lacpPriority: this.lacpPriority(s),
          ...Object.fromEntries(timers),
        }),
      );
      this.ports(s, id);
    });
  }

  /** LACP system priority of most bundles of a switch; nothing where it is the usual one. */
  private lacpPriority(s: ObservedSwitch): number | undefined {
    const own = this.observed.bundles.filter((b) => b.switch === s.name);
    const most = prevailing(own.map((b) => b.systemPriority ?? null));
    return most === null || most === LACP_PRIORITY.default ? undefined : most;
  }

  private priorities(s: ObservedSwitch): Json {
    const entries = Object.entries(s.priorities).filter(([, p]) => p !== s.priority);
    const of = (pattern: RegExp) => {
      const own = entries.flatMap(([tree, p]) => {
        const match = pattern.exec(tree);
        return match ? [[match[1]!, p] as const] : [];
      });
      return own.length > 0 ? Object.fromEntries(own) : undefined;
    };
    return { vlanPriority: of(/^vlan-(\d+)$/), instancePriority: of(/^msti-(\d+)$/) };
  }

  private ports(s: ObservedSwitch, id: string): void {
    const bundles = this.observed.bundles.filter((b) => b.switch === s.name);
    const bundleNames = new Set(bundles.map((b) => b.name));
    const numbers = new Numbers([...s.ports.map((p) => p.number), ...bundles.map((b) => b.number)]);
    const priority = this.portPriorities(s.name);
    const common = (p: ObservedSwitch['ports'][number] | undefined, name: string): Json => ({
      edge: p?.adminEdge === true || (p?.adminEdge === undefined && p?.edge) ? true : undefined,
      vlans: vlansFor(p?.vlans, this.vlanNumbers),
      native: p?.native ?? undefined,
      priority: priority.get(name),
      cost: p?.adminCost ? p.adminCost : undefined,
      bpduGuard: p?.bpduGuard || undefined,
      rootGuard: p?.rootGuard || undefined,
    });
    s.ports.forEach((p, i) => {
      if (bundleNames.has(p.name)) return;
      const port = `${id}p${i + 1}`;
      this.portIds.set(`${s.name}\n${p.name.toLowerCase()}`, port);
      this.lists.ports.push(
        given({
          id: port,
          switch: id,
          name: nameFor(p, s),
          number: numbers.of(p.number),
          speed: p.speed ?? 1000,
          duplex: p.duplex === 'half' ? 'half' : undefined,
          down: p.enabled === false ? true : undefined,
          linkType: p.linkType,
          lacpPriority: p.lacpPriority === LACP_PRIORITY.default ? undefined : p.lacpPriority,
          description: p.description,
          autoEdge: p.adminEdge === false && p.edge ? true : undefined,
          ...common(p, p.name),
        }),
      );
    });
    bundles.forEach((b, i) => {
      const own = s.ports.find((p) => p.name === b.name);
      this.lists.bundles.push(
        given({
          id: `${id}b${i + 1}`,
          switch: id,
          name: b.name,
          number: numbers.of(b.number),
          members: b.members.flatMap((m) => this.portIds.get(`${s.name}\n${m.toLowerCase()}`) ?? []),
          kind: b.mode ?? 'lacp',
          activity: b.activity === 'passive' ? 'passive' : undefined,
          timeout: b.timeout === 'short' ? 'short' : undefined,
          minActive: b.minActive && b.minActive > 1 ? b.minActive : undefined,
          systemPriority:
            b.systemPriority === undefined || b.systemPriority === (this.lacpPriority(s) ?? LACP_PRIORITY.default)
              ? undefined
              : b.systemPriority,
          systemMac: b.system !== undefined && s.mac !== null && b.system !== s.mac ? b.system : undefined,
          ...common(own, b.name),
        }),
      );
    });
  }

  /** Port priorities in the first tree that tells them. */
  private portPriorities(name: string): Map<string, number> {
    const [base] = this.observed.trees;
    const own = (base?.ports ?? []).filter((p) => p.switch === name && p.priority !== undefined && p.priority !== 128);
    return new Map(own.map((p) => [p.port, p.priority!]));
  }

  cables(): void {
    const portOf = (end: ObservedEnd) => this.portIds.get(`${end.switch}\n${end.port.toLowerCase()}`);
    this.observed.links.forEach(({ a, b }, i) => {
      const [x, y] = [portOf(a), portOf(b)];
      if (x && y) this.lists.links.push({ id: `l${i + 1}`, a: { port: x }, b: { port: y } });
    });
    this.observed.segments.forEach(({ ports }, i) => {
      this.lists.segments.push({ id: `h${i + 1}`, name: `LAN ${i + 1}`, ports: ports.flatMap((e) => portOf(e) ?? []) });
    });
  }
}

const MOST_LEFT_OUT = 200;

/** Leaves out what no design can hold, value by value, with a question each. */
function fitting(document: Json, questions: ObservedQuestion[]): Design {
  for (let n = 0; n < MOST_LEFT_OUT; n++) {
    const read = readDesign(document);
    if (read.ok) return read.design;
    const [fault] = read.faults as [(typeof read.faults)[number]];
    const [list, index, field] = fault.path;
    const elements = document[String(list)] as Json[] | undefined;
    const element = elements?.[Number(index)];
    if (!elements || !element) break;
    const owner = (document.switches as Json[]).find((s) => s.id === element.switch) ?? element;
    questions.push({
      kind: 'incomplete',
      switch: typeof owner.name === 'string' ? owner.name : null,
      port: owner === element || typeof element.name !== 'string' ? null : element.name,
      text: say['not-drawn']({ at: typeof owner.name === 'string' ? owner.name : 'the network', why: fault.sentence }),
    });
    const needed = ['id', 'name', 'number', 'mac', 'switch', 'speed', 'a', 'b', 'ports', 'members'];
    if (field !== undefined && !needed.includes(String(field))) delete element[String(field)];
    else elements.splice(Number(index), 1);
  }
  return emptyDesign(String(document.name));
}

/** Draws an observed network. What no design can hold stays out, with a question; places are left to whoever shows it. */
export function drawObserved(observed: ObservedNetwork, name: string): Drawing {
  const questions: ObservedQuestion[] = [];
  const { list, idOf, unmapped } = regionsOf(observed);
  if (unmapped.length > 0)
    questions.push({ kind: 'incomplete', switch: unmapped[0]!, port: null, text: say['no-map']({ names: unmapped }) });

  const drawn = new Draughtsman(observed);
  drawn.switches(idOf);
  drawn.cables();
  drawn.lists.regions = list;
  const document: Json = {
    ...emptyDesign(name),
    format: DESIGN_FORMAT,
    version: DESIGN_VERSION,
    mode: drawn.mode,
    costScale: drawn.scale,
    ...drawn.lists,
  };
  return { design: drawCosts(fitting(document, questions), observed), questions };
}
