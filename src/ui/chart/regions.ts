/** MST regions as the chart shows them: which one a switch is in, and the ports where regions meet. */
import { modeOf } from '../../core/design';
import { mstConfigOf } from '../../core/network';
import { boundaryPorts } from '../../core/trees';
import type { SolvedDesign } from '../../core/trees';
import type { PlateItem } from './scene-items';

export interface Regions {
  readonly of: (bridge: number) => PlateItem['region'];
  readonly boundary: (port: number) => 0 | 1 | 2;
}

const NONE: Regions = { of: () => undefined, boundary: () => 0 };

/** Nothing where all switches are of one region, or none runs MSTP: then there is nothing to tell apart. */
export function regionsOf({ topology, trees }: SolvedDesign): Regions {
  const { design } = topology;
  const cist = trees.find((t) => t.outcome.cist);
  const part = cist?.outcome.cist;
  if (!cist || !part || new Set(part.region).size < 2) return NONE;
  const kinds = boundaryPorts(topology, part, cist.problem);
  const names = new Map<number, string>();
  return {
    of: (bridge) => {
      const region = part.region[bridge]!;
      const s = design.switches[bridge]!;
      if (region < 0) return { name: modeOf(design, s), hue: -1 };
      if (!names.has(region)) {
        const { name, revision } = mstConfigOf(design, s);
        const same = [...names.values()].filter((n) => n.startsWith(`${name} · ${revision}`)).length;
        names.set(region, `${name} · ${revision}${same > 0 ? ` (${same + 1})` : ''}`);
      }
      return { name: names.get(region)!, hue: region % 7 };
    },
    boundary: (port) => kinds[port] as 0 | 1 | 2,
  };
}
