/** What a rule of the review sees, and what it answers. */
import { bundleAt, hostById, portById, switchById } from '../../design';
import type { Bundle, Design, Edit, Port } from '../../design';
import { bundleVerdicts } from '../../network';
import type { BundleVerdict } from '../../network';
import { formatVlanRanges, vlanMembership } from '../../standard';
import type { SolvedDesign } from '../../trees';
import { partedAlready } from '../separation';
import { reachOf } from '../reach';
import type { VlanParts } from '../reach';
import { vlanGraphs } from '../vlan-graphs';
import type { VlanGraph } from '../vlan-graphs';

/** fault: does not do today what is drawn or meant; risk: one failure or one mistake away from that; remark: untidy. */
export const SEVERITIES = ['fault', 'risk', 'remark'] as const;
export type Severity = (typeof SEVERITIES)[number];

export interface Subject {
  readonly kind: 'switch' | 'port' | 'bundle' | 'link' | 'host' | 'vlan' | 'region' | 'pair' | 'design';
  readonly id: string;
  /** It begins with its switch: `quay-b 12`. */
  readonly name: string;
}

/** One thing that a rule has found. */
export interface Found {
  readonly subjects: readonly Subject[];
  readonly sentence: string;
  /** Edits that would mend it, with what they do in words. */
  readonly fix?: { readonly label: string; readonly edits: readonly Edit[] };
}

export interface Rule {
  readonly code: string;
  readonly severity: Severity;
  readonly find: (c: Context) => readonly Found[];
}

/** A design and what is worked out of it once for all rules. */
export class Context {
  readonly design: Design;
  constructor(readonly solved: SolvedDesign) {
    this.design = solved.topology.design;
  }

  private readonly kept = new Map<string, unknown>();
  private once<T>(key: string, build: () => T): T {
    if (!this.kept.has(key)) this.kept.set(key, build());
    return this.kept.get(key) as T;
  }

  get verdicts(): ReadonlyMap<string, BundleVerdict> {
    return this.once('verdicts', () => new Map(bundleVerdicts(this.design).map((v) => [v.bundle, v])));
  }
  get parts(): readonly VlanParts[] {
    return this.once('parts', () => reachOf(this.solved));
  }
  get parted(): ReturnType<typeof partedAlready> {
    return this.once('parted', () => partedAlready(this.parts));
  }
  get graphs(): readonly VlanGraph[] {
    return this.once('graphs', () => vlanGraphs(this.solved));
  }
  /** Cables between two switches, with the ports at both ends. */
  get joints(): readonly Joint[] {
    return this.once('joints', () =>
      this.design.links.flatMap((link): Joint[] => {
        if (!('port' in link.a && 'port' in link.b)) return [];
        const [a, b] = [portById(this.design, link.a.port), portById(this.design, link.b.port)];
        return a && b && a.switch !== b.switch ? [{ link: link.id, a, b, down: link.down === true }] : [];
      }),
    );
  }
  /** Cables to hosts, with the port at the switch. */
  get hostPorts(): readonly { readonly port: Port; readonly host: string }[] {
    return this.once('hostPorts', () =>
      this.design.links.flatMap(({ a, b }) => {
        const [port, host] = 'host' in a ? [b, a] : [a, b];
        const at = 'port' in port ? portById(this.design, port.port) : undefined;
        return at && 'host' in host ? [{ port: at, host: host.host }] : [];
      }),
    );
  }

  name(id: string): string {
    return switchById(this.design, id)?.name ?? id;
  }
  portName({ switch: at, name }: Port | Bundle): string {
    return `${this.name(at)} ${name}`;
  }
  hostName(id: string): string {
    return hostById(this.design, id)?.name ?? id;
  }
  switchAt(index: number): Subject {
    const s = this.design.switches[index]!;
    return { kind: 'switch', id: s.id, name: s.name };
  }
  portOf(element: Port | Bundle): Subject {
    return { kind: 'members' in element ? 'bundle' : 'port', id: element.id, name: this.portName(element) };
  }
  linkOf({ link, a, b }: Joint): Subject {
    return { kind: 'link', id: link, name: `${this.portName(a)} – ${this.portName(b)}` };
  }
  /** What decides at a port: its bundle, else itself. */
  acting(port: Port): Port | Bundle {
    return bundleAt(this.design, port.id) ?? port;
  }
}

export interface Joint {
  readonly link: string;
  readonly a: Port;
  readonly b: Port;
  readonly down: boolean;
}

const MOST_NAMES = 5;
/** `gate, quay-a and 3 more`. */
export function namesOf(names: readonly string[]): string {
  if (names.length <= MOST_NAMES) return names.join(', ');
  return `${names.slice(0, MOST_NAMES - 1).join(', ')} and ${names.length - MOST_NAMES + 1} more`;
}

/** `VLAN 110`, `VLANs 110-120, 130`. */
export const vlansInWords = (vlans: readonly number[]): string =>
  `VLAN${vlans.length === 1 ? '' : 's'} ${formatVlanRanges([...vlans].sort((a, b) => a - b)).replaceAll(',', ', ')}`;

/** VLANs of the design that one set has and another has not. */
export function vlansBetween(design: Design, a: string, b: string): number[] {
  const [x, y] = [vlanMembership(a), vlanMembership(b)];
  return design.vlans.map((v) => v.number).filter((v) => x[v] !== y[v]);
}
