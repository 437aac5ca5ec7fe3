/** Five switches with what they report of their neighbours, and the cabling that is known of them. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { emptyDesign } from '../src/core/design';
import type { Design } from '../src/core/design';

const text = (name: string) => readFileSync(path.join(__dirname, `../tests/fixtures/lldp/${name}.json`), 'utf8');

interface Truth {
  readonly switches: readonly {
    readonly name: string;
    readonly mac: string;
    readonly ports: readonly { readonly ifname: string; readonly number: number }[];
  }[];
  readonly cables: readonly (readonly { readonly switch: string; readonly ifname: string }[])[];
}

/** The design as it is drawn: the first cable is not, and `portOf` may say that one is plugged in elsewhere. */
export function docks(portOf = (_: string, port: string): string => port): {
  readonly design: Design;
  readonly files: { name: string; text: string }[];
} {
  const truth = JSON.parse(text('truth')) as Truth;
  const design = emptyDesign('docks');
  for (const s of truth.switches) {
    design.switches.push({ id: s.name, name: s.name, mac: s.mac });
    for (const p of s.ports)
      design.ports.push({ id: `${s.name}:${p.ifname}`, switch: s.name, name: p.ifname, number: p.number, speed: 1000 });
  }
  truth.cables.slice(1).forEach((ends, i) => {
    const [a, b] = ends.map((e) => ({ port: `${e.switch}:${portOf(e.switch, e.ifname)}` }));
    design.links.push({ id: `l${i}`, a: a!, b: b! });
  });
  return { design, files: truth.switches.map(({ name }) => ({ name: `${name}.json`, text: text(name) })) };
}
