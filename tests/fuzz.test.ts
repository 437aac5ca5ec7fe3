/** Whatever comes in from outside is accepted or refused with sentences; nothing throws, nothing is half done. */
import fc from 'fast-check';
import {
  COLLECTIONS,
  applyEdits,
  editSchema,
  integrityFaults,
  readDesign,
  readDesignText,
  removeSwitch,
} from '@/core/design';
import type { Design, Edit, Kind } from '@/core/design';
import { exportCsv, formatTableFault, importCsv } from '@/core/formats';
import { parseVlanRanges } from '@/core/standard';
import { explainPort, solveDesign } from '@/core/trees';
import { asCabled } from '@/demo/brackwater';
import { networks } from './support/networks';
import { runs } from './support/runs';
import { smallDesign } from './support/small-design';

const demo = asCabled();
const text = JSON.stringify(demo);
const tables = exportCsv(demo);

/** A text with a piece cut out and another put in. */
const mangled = (source: string) =>
  fc
    .record({ at: fc.nat({ max: source.length }), cut: fc.nat({ max: 60 }), put: fc.string({ maxLength: 12 }) })
    .map(({ at, cut, put }) => source.slice(0, at) + put + source.slice(at + cut));

test('a mangled design file is read or refused with sentences', () => {
  fc.assert(
    fc.property(mangled(text), (broken) => {
      const read = readDesignText(broken);
      if (read.ok) expect(integrityFaults(read.design)).toEqual([]);
      else for (const fault of read.faults) expect(fault.sentence).toMatch(/\S.*[.)]$/s);
    }),
    { numRuns: 500 },
  );
});

test('any JSON value at all is read or refused', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.constantFrom(...Object.keys(demo)), (value, field) => {
      expect(readDesign(value).ok).toBe(false);
      const read = readDesign({ ...demo, [field]: value });
      if (!read.ok) expect(read.faults.length).toBeGreaterThan(0);
    }),
    { numRuns: 500 },
  );
});

test('mangled tables are accepted whole or refused with file and place', () => {
  fc.assert(
    fc.property(mangled(tables.switches), mangled(tables.links), fc.boolean(), (switches, links, both) => {
      const result = importCsv(
        'x',
        { file: 's.csv', text: switches },
        { file: 'l.csv', text: both ? links : tables.links },
        { file: 'v.csv', text: tables.vlans },
      );
      if (result.ok) expect(integrityFaults(result.design)).toEqual([]);
      else for (const fault of result.faults) expect(formatTableFault(fault)).toMatch(/^[slv]\.csv/);
    }),
    { numRuns: 400 },
  );
});

test('any text is a list of VLANs or is refused at a part of it', () => {
  fc.assert(
    fc.property(fc.string(), (anything) => {
      const parsed = parseVlanRanges(anything);
      if (!parsed.ok) expect(anything).toContain(parsed.part);
      else for (const vlan of parsed.vlans) expect(vlan >= 1 && vlan <= 4094).toBe(true);
    }),
  );
});

const kinds = ['vlan', 'switch', 'port', 'link', 'segment', 'bundle', 'host'] as const;
const fields = [
  'name',
  'priority',
  'cost',
  'vlans',
  'members',
  'mac',
  'a',
  'number',
  'switch',
  'off',
  'vlanCost.10',
  'ports',
  'id',
];
const lists = {
  vlan: 'vlans',
  switch: 'switches',
  port: 'ports',
  link: 'links',
  segment: 'segments',
  bundle: 'bundles',
  host: 'hosts',
} as const;

/** Edits of every shape, most of them nonsense, aimed at things that exist. */
const wildEdits = fc
  .record({
    kind: fc.constantFrom(...kinds),
    at: fc.nat(),
    field: fc.constantFrom(...fields),
    value: fc.jsonValue(),
    what: fc.nat({ max: 3 }),
  })
  .map(({ kind, at, field, value, what }) => (design: Design): Edit | null => {
    const list = design[lists[kind]] as readonly { id: string }[];
    const target = list[at % Math.max(1, list.length)];
    if (!target) return null;
    const raw =
      what === 0
        ? { type: 'remove', kind, id: target.id }
        : what === 1
          ? { type: 'add', kind, value: { ...target, id: `new${at}` } }
          : { type: 'set', kind, id: target.id, field, value };
    const parsed = editSchema.safeParse(raw);
    return parsed.success ? parsed.data : null;
  });

test('any edit either leaves a right design whose inverse leads back, or is refused and changes nothing', () => {
  fc.assert(
    fc.property(fc.array(wildEdits, { minLength: 1, maxLength: 4 }), (makers) => {
      const edits = makers.flatMap((make) => make(demo) ?? []);
      const applied = applyEdits(demo, edits);
      expect(JSON.stringify(demo)).toBe(text);
      if (!applied.ok) return expect(applied.faults[0]!.sentence.length).toBeGreaterThan(10);
      expect(integrityFaults(applied.design)).toEqual([]);
      expect(readDesign(JSON.parse(JSON.stringify(applied.design))).ok).toBe(true);
      const back = applyEdits(applied.design, applied.inverse);
      expect(back.ok && back.design).toEqual(demo);
    }),
    { numRuns: 800 },
  );
});

test('a network from which switches are taken one by one stays right and solvable to the last', () => {
  fc.assert(
    fc.property(networks, fc.array(fc.nat(), { minLength: 9, maxLength: 9 }), (start, picks) => {
      let design = start;
      let solved = solveDesign(design);
      for (const pick of picks) {
        if (design.switches.length === 0) return;
        const { id } = design.switches[pick % design.switches.length]!;
        const applied = applyEdits(design, removeSwitch(design, id));
        if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
        design = applied.design;
        solved = solveDesign(design, solved);
        for (const of of solved.trees) solved.topology.ports.forEach((_, port) => explainPort(solved, of, port));
      }
      expect(design.ports).toEqual([]);
    }),
    { numRuns: 150 },
  );
});

/** Every field that an element of any kind may have, entries of tables among them, and names that none has. */
const everyField = Object.entries(COLLECTIONS).flatMap(([kind, { schema }]) => {
  const shapes = 'options' in schema ? schema.options.map((o) => o.shape) : [schema.shape];
  const own = [...new Set(shapes.flatMap((shape) => Object.keys(shape)))];
  const wrong = ['constructor', '__proto__', 'toString', 'x.1', 'name.2', 'vlanCost.0', 'vlanCost.4095'];
  return [...own, ...own.map((f) => `${f}.10`), ...wrong].map((field) => ({ kind: kind as Kind, field }));
});
const whole = smallDesign();
const valueOf = (kind: Kind, field: string) => {
  const elements = whole[COLLECTIONS[kind].list] as readonly Record<string, unknown>[];
  return elements.map((e) => e[field.split('.')[0]!]).find((v) => v !== undefined) ?? null;
};

test('any edit of any field, undone and done again, leads back and forth', () => {
  const anyEdit = fc
    .record({
      at: fc.constantFrom(...everyField),
      value: fc.oneof(fc.jsonValue(), fc.constantFrom(0, 1, 10, 4096, '10', 'a', true, null, [], {})),
      own: fc.boolean(),
      pick: fc.nat({ max: 3 }),
    })
    .map(({ at: { kind, field }, value, own, pick }) => {
      const elements = whole[COLLECTIONS[kind].list] as readonly { id: string }[];
      const { id } = elements[pick % elements.length]!;
      return { type: 'set', kind, id, field, value: own ? valueOf(kind, field) : value };
    });
  let made = 0;
  fc.assert(
    fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 3 }), (raw) => {
      const edits = raw.flatMap((edit) => {
        const parsed = editSchema.safeParse(edit);
        return parsed.success ? [parsed.data] : [];
      });
      const applied = applyEdits(whole, edits);
      if (!applied.ok) return;
      made++;
      expect(integrityFaults(applied.design)).toEqual([]);
      const undone = applyEdits(applied.design, applied.inverse);
      if (!undone.ok) throw new Error(undone.faults[0]!.sentence);
      expect(undone.design).toEqual(whole);
      const redone = applyEdits(undone.design, edits);
      expect(redone.ok && redone.design).toEqual(applied.design);
    }),
    runs(6000),
  );
  expect(made).toBeGreaterThan(500);
});

test.each(['constructor', '__proto__', 'x.1', 'name.1', 'id'])('a field called %s is refused', (field) => {
  const parsed = editSchema.safeParse({ type: 'set', kind: 'switch', id: 'a', field, value: 'x' });
  const applied = parsed.success ? applyEdits(whole, [parsed.data]) : null;
  expect(applied?.ok ?? false).toBe(false);
});

test('an event of a script that is nested 1500 deep is refused, in an edit and in a file', () => {
  const deep = JSON.parse(`${'['.repeat(1500)}${']'.repeat(1500)}`) as never;
  const events = [{ id: 'e', kind: 'set', at: 1, label: 'x', edits: [deep] }];
  const edit = { type: 'set', kind: 'script', id: 's', field: 'events', value: events };
  const parsed = editSchema.safeParse(edit);
  expect(parsed.success ? '' : parsed.error.issues[0]!.message).toMatch(/nested too deeply: at most 24 levels/);
  const read = readDesign({ ...whole, scripts: [{ ...whole.scripts[0]!, events }] });
  expect(read.ok ? '' : read.faults[0]!.sentence).toMatch(/nested too deeply/);
});
