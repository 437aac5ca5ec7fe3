/** Cables between switches: what they carry, how, and whether their ends agree. */
import { bundleAt, isClassicMode, modeOf, switchById, untaggedWords, vlansAt } from '../../design';
import type { Port } from '../../design';
import { linkUseOf } from '../../analysis';
import { reviewMessages as say } from '../../messages';
import { isHalfDuplex } from '../../network';
import { vlansBetween, vlansInWords } from './rule';
import type { Context, Found, Joint, Rule } from './rule';

/** Ends of a cable, or of the bundle that it is a member of, by names. */
const endNames = (c: Context, { a, b }: Joint) => ({ a: c.portName(c.acting(a)), b: c.portName(c.acting(b)) });

/** Cables once each, of a bundle the first member alone. */
function onceEach(c: Context): Joint[] {
  const seen = new Set<string>();
  return c.joints.filter(({ a }) => {
    const bundle = bundleAt(c.design, a.id);
    if (!bundle) return true;
    if (seen.has(bundle.id)) return false;
    seen.add(bundle.id);
    return true;
  });
}

const isClassicAt = (c: Context, p: Port): boolean => isClassicMode(modeOf(c.design, switchById(c.design, p.switch)!));

function usedRule(which: 'idle' | 'everything', code: 'link-idle' | 'link-carries-all'): Rule {
  return {
    code,
    severity: 'remark',
    find: (c) => {
      const use = linkUseOf(c.solved);
      if (c.solved.trees.length < 2 || use.idle.length === 0) return [];
      const { ports } = c.solved.topology;
      return use[which].map((column): Found => {
        const [a, b] = [use.columns[column]!.a, use.columns[column]!.b].map((p) => ports[p]!.element) as [Port, Port];
        const names = { a: c.portName(a), b: c.portName(b) };
        return {
          subjects: [c.portOf(a), c.portOf(b)],
          sentence: code === 'link-idle' ? say[code](names) : say[code]({ ...names, trees: c.solved.trees.length }),
        };
      });
    },
  };
}
export const linkIdle = usedRule('idle', 'link-idle');
export const linkCarriesAll = usedRule('everything', 'link-carries-all');

export const scalesMixed: Rule = {
  code: 'scales-mixed',
  severity: 'fault',
  find: ({ design }) => {
    const scales = design.switches.map((s) => s.costScale ?? design.costScale);
    const [long, short] = ['long', 'short'].map((scale) => scales.filter((s) => s === scale).length) as [
      number,
      number,
    ];
    if (long === 0 || short === 0) return [];
    const odd = long >= short ? 'short' : 'long';
    const wrong = design.switches.filter((s) => (s.costScale ?? design.costScale) === odd);
    return [
      {
        subjects: wrong.map((s) => ({ kind: 'switch', id: s.id, name: s.name })),
        sentence: say['scales-mixed']({ long, short }),
        fix: {
          label: `Give all switches the ${odd === 'short' ? '32-bit' : '16-bit'} cost scale`,
          edits: wrong.map(({ id }) => ({
            type: 'set',
            kind: 'switch',
            id,
            field: 'costScale',
            value: odd === 'short' ? 'long' : 'short',
          })),
        },
      },
    ];
  },
};

export const halfDuplex: Rule = {
  code: 'half-duplex',
  severity: 'risk',
  find: (c) =>
    c.joints.flatMap((j): Found[] =>
      isHalfDuplex(c.design, j.a.id) && ![j.a, j.b].every((p) => isClassicAt(c, p))
        ? [{ subjects: [c.linkOf(j)], sentence: say['half-duplex']({ a: c.portName(j.a), b: c.portName(j.b) }) }]
        : [],
    ),
};

export const vlansDiffer: Rule = {
  code: 'vlans-differ',
  severity: 'fault',
  find: (c) =>
    onceEach(c).flatMap((j): Found[] => {
      const [near, far] = [vlansAt(c.design, j.a.id), vlansAt(c.design, j.b.id)];
      const vlans = vlansBetween(c.design, near.vlans, far.vlans);
      if (vlans.length === 0) return [];
      return [
        { subjects: [c.linkOf(j)], sentence: say['vlans-differ']({ ...endNames(c, j), vlans: vlansInWords(vlans) }) },
      ];
    }),
};

export const untaggedDiffer: Rule = {
  code: 'untagged-differ',
  severity: 'fault',
  find: (c) =>
    onceEach(c).flatMap((j): Found[] => {
      const [near, far] = [vlansAt(c.design, j.a.id).native, vlansAt(c.design, j.b.id).native];
      if (near === far) return [];
      const words = untaggedWords(c.design, c.acting(j.a).id);
      return [{ subjects: [c.linkOf(j)], sentence: say['untagged-differ']({ ...endNames(c, j), words }) }];
    }),
};

/** Switches with descriptions at some uplinks and not at others, or at none while others have them. */
export const uplinkUndescribed: Rule = {
  code: 'uplink-undescribed',
  severity: 'remark',
  find: (c) => {
    const ends = c.joints.flatMap(({ a, b }) => [a, b]);
    if (!ends.some((p) => p.description)) return [];
    return c.design.switches.flatMap((s): Found[] => {
      const bare = ends.filter((p) => p.switch === s.id && !p.description);
      if (bare.length === 0) return [];
      return [
        {
          subjects: bare.map((p) => c.portOf(p)),
          sentence: say['uplink-undescribed']({ name: s.name, ports: bare.length }),
        },
      ];
    });
  },
};

export const classicBesideRapid: Rule = {
  code: 'classic-beside-rapid',
  severity: 'risk',
  find: (c) =>
    onceEach(c).flatMap((j): Found[] => {
      if (isClassicAt(c, j.a) === isClassicAt(c, j.b)) return [];
      const [rapid, old] = isClassicAt(c, j.a) ? [j.b, j.a] : [j.a, j.b];
      const [a, b] = [c.acting(rapid), c.acting(old)];
      return [
        {
          subjects: [c.portOf(a), c.portOf(b)],
          sentence: say['classic-beside-rapid']({ a: c.portName(a), b: c.portName(b) }),
        },
      ];
    }),
};
