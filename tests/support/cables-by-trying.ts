/** Missing cables by trying: what a network with some cables more stands, and the fewest that do. */
import { portById } from '@/core/design';
import type { Design } from '@/core/design';
import type { MissingCable } from '@/core/review';
import { carries, isSwitch, partsByCables } from './parts-by-cables';
import { VLANS } from './vlan-networks';

/** The design with some cables more, in ports of their own that carry what their switch carries. */
export function withCables(design: Design, cables: readonly Pick<MissingCable, 'a' | 'b'>[]): Design {
  const vlansAt = (s: string) =>
    VLANS.filter((v) =>
      design.links.some((l) =>
        [l.a, l.b].some((e) => 'port' in e && portById(design, e.port)!.switch === s && carries(design, e.port, v)),
      ),
    ).join(',');
  const ports = cables.flatMap(({ a, b }, i) =>
    [a, b].map((end, side) => ({
      id: `new${i}.${side}`,
      switch: end.switch,
      name: `new${i}.${side}`,
      number: 1000 + 2 * i + side,
      speed: 1000,
      vlans: vlansAt(end.switch) || '1',
    })),
  );
  const links = cables.map((_, i) => ({ id: `new${i}`, a: { port: `new${i}.0` }, b: { port: `new${i}.1` } }));
  return { ...design, ports: [...design.ports, ...ports], links: [...design.links, ...links] };
}

/** Whether VLANs are whole, and stay so when any one cable between switches, or any one switch, is gone. */
export function standsAll(design: Design, what: 'link' | 'switch'): boolean {
  const whole = (d: Design) =>
    VLANS.every((v) => partsByCables(d, v).filter((p) => [...p].some((id) => isSwitch(d, id))).length <= 1);
  if (!whole(design)) return false;
  const between = design.links.filter((l) => 'port' in l.a && 'port' in l.b);
  return what === 'link'
    ? between.every((l) => whole({ ...design, links: design.links.map((o) => (o === l ? { ...o, down: true } : o)) }))
    : design.switches.every((s) =>
        whole({ ...design, switches: design.switches.map((o) => (o === s ? { ...o, off: true } : o)) }),
      );
}

/** A cable helps where both ends carry the VLAN: with all of them there is nothing more to be had. */
export const canStand = (design: Design, what: 'link' | 'switch' = 'switch', pairs = pairsOf(design)): boolean =>
  standsAll(withCables(design, what === 'link' ? [...pairs, ...pairs] : pairs), what);

type Pair = Pick<MissingCable, 'a' | 'b'>;

/** All pairs of switches. */
export const pairsOf = ({ switches }: Design): Pair[] =>
  switches.flatMap((a, i) =>
    switches.slice(i + 1).map((b) => ({ a: { switch: a.id, port: null }, b: { switch: b.id, port: null } })),
  );

/** All sets of some pairs of one size with which any one may fail. */
export function setsThatDo(
  design: Design,
  what: 'link' | 'switch',
  size: number,
  pairs: readonly Pair[],
  first = false,
): Pair[][] {
  const found: Pair[][] = [];
  const tryAll = (left: number, from: number, chosen: Pair[]): void => {
    if (first && found.length > 0) return;
    if (left === 0) {
      if (standsAll(withCables(design, chosen), what)) found.push(chosen);
      return;
    }
    pairs.slice(from).forEach((p, i) => tryAll(left - 1, what === 'link' ? from + i : from + i + 1, [...chosen, p]));
  };
  tryAll(size, 0, []);
  return found;
}

/** The fewest cables by trying all sets of one size after the other. */
export function fewest(design: Design, what: 'link' | 'switch', most: number, pairs = pairsOf(design)): number {
  for (let n = 0; n <= most; n++) if (setsThatDo(design, what, n, pairs, true).length > 0) return n;
  return Infinity;
}
