import { asMeant } from '../../demo/brackwater';
import { scriptSchema } from '../../core/design';
import type { Design } from '../../core/design';
import { missingIn, rehearse } from '../../core/simulation';
import { solveDesign } from '../../core/trees';
import { suggestedScripts } from './suggested-scripts';

const suggested = (design: Design, ...ids: string[]) => {
  const solved = solveDesign(design);
  return suggestedScripts(
    solved,
    solved.trees[0] ?? null,
    ids.map((id) => ({ kind: 'switch', id })),
  );
};

describe('scripts that are suggested', () => {
  const design = asMeant();
  test('are legal, name what is there, and leave time after each event', () => {
    const all = suggested(design, 'gate');
    expect(all.map((s) => s.name)).toEqual([
      'root of VLAN 110 ticketing fails',
      'each uplink of gate',
      'a member of each bundle',
      'power returns everywhere',
    ]);
    for (const script of all) {
      expect(scriptSchema.safeParse({ id: 's', ...script }).success).toBe(true);
      expect(script.events.flatMap((e) => missingIn(design, e) ?? [])).toEqual([]);
      expect(script.until).toBeGreaterThan(script.events.at(-1)!.at + 5);
    }
  });
  test('bring about what they are called: the network is whole again at the end', () => {
    for (const script of suggested(design, 'gate')) {
      const trace = rehearse(design, { id: 's', ...script, probes: [] });
      expect([script.name, trace.ended, trace.sentence]).toEqual([script.name, 'end', '']);
      for (const lane of trace.roots) expect(lane.spans.at(-1)!.roots).toHaveLength(1);
    }
  });
  test('a classic network gets its forward delays', () => {
    const [rapid, classic] = [design, { ...design, mode: 'per-vlan-stp' as const }].map((d) => suggested(d)[0]!);
    expect(classic!.until).toBeGreaterThan(rapid!.until + 50);
  });
  test('an empty design suggests nothing', () => {
    expect(
      suggested({
        ...design,
        switches: [],
        ports: [],
        links: [],
        bundles: [],
        hosts: [],
        demands: [],
        goals: [],
        scripts: [],
      }),
    ).toEqual([]);
  });
});
