/** A short way to write a design down by hand: names are ids, ports come into being with the cables. */
import { emptyDesign } from '../core/design';
import type { Design, Host, Port, Switch, Vlan } from '../core/design';

type End = readonly [switchName: string, port: number];

export class DesignDraft {
  readonly design: Design;
  private readonly known: Map<string, Port>;

  /** Starts a new design, or goes on with one. */
  constructor(name: string, from?: Design) {
    this.design = from ?? { ...emptyDesign(name), vlans: [] };
    this.known = new Map(this.design.ports.map((p) => [p.id, p]));
  }

  vlan(number: number, name: string, hue: number): this {
    const vlan: Vlan = { id: `v${number}`, number, name, hue };
    this.design.vlans.push(vlan);
    return this;
  }

  switch(name: string, mac: string, tier: Switch['tier'], x: number, y: number, more: Partial<Switch> = {}): this {
    this.design.switches.push({ id: name, name, mac, tier, x, y, ...more });
    return this;
  }

  port([at, number]: End, speed: number, more: Partial<Port> = {}): string {
    const id = `${at}:${number}`;
    const known = this.known.get(id);
    if (known) Object.assign(known, more);
    else {
      const port: Port = { id, switch: at, name: `${number}`, number, speed, ...more };
      this.known.set(id, port);
      this.design.ports.push(port);
    }
    return id;
  }

  link(a: End, b: End, speed: number, vlans: string, farVlans = vlans): this {
    const [from, to] = [this.port(a, speed, { vlans }), this.port(b, speed, { vlans: farVlans })];
    this.design.links.push({ id: `${from}--${to}`, a: { port: from }, b: { port: to } });
    return this;
  }

  host(name: string, at: End, speed: number, vlan: number, place: Pick<Host, 'x' | 'y'>): this {
    this.design.hosts.push({ id: name, name, vlan, ...place });
    const port = this.port(at, speed, { vlans: `${vlan}`, native: vlan, edge: true });
    this.design.links.push({ id: `${port}--${name}`, a: { port }, b: { host: name } });
    return this;
  }

  /** Both ends of a bundle of ports that are cabled one to one. */
  bundle(
    a: { at: string; number: number; members: number[] },
    b: { at: string; number: number; members: number[] },
    vlans: string,
  ): this {
    for (const [end, far] of [
      [a, b],
      [b, a],
    ] as const)
      this.design.bundles.push({
        id: `${end.at}:lag${end.number}`,
        switch: end.at,
        name: `to-${far.at}`,
        number: end.number,
        members: end.members.map((m) => `${end.at}:${m}`),
        kind: 'lacp',
        vlans,
      });
    return this;
  }
}
