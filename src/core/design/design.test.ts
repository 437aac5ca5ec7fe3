import fc from 'fast-check';
import { asCabled } from '../../demo/brackwater';
import { networks } from '../../../tests/support/networks';
import { addElement, applyEdits, editsCollide, setField } from './edits';
import { advance, historyOf } from './history';
import { emptyDesign } from './schema';
import { formatPath } from './fault';
import { integrityFaults } from './rules/integrity';
import { priorityInForce, setBridgePriority, setPortCost } from './settings';
import { readDesign, readDesignText } from './read';
import { removeLink, removePort, removeSwitch } from './removal';
import type { Design } from './schema';
import type { Edit } from './edits';

const demo = asCabled();
const first = (edits: Edit[], design: Design = demo) => {
  const applied = applyEdits(design, edits);
  return applied.ok ? null : applied.faults[0]!;
};
const applied = (edits: Edit[], design: Design = demo) => {
  const result = applyEdits(design, edits);
  if (!result.ok) throw new Error(result.faults[0]!.sentence);
  return result;
};

describe('edits', () => {
  test('the inverse of any removal brings the design back as it was, order included', () => {
    const removals: Edit[][] = [
      ...demo.switches.map((s) => removeSwitch(demo, s.id)),
      ...demo.ports.filter((_, i) => i % 5 === 0).map((p) => removePort(demo, p.id)),
      ...demo.links.filter((_, i) => i % 4 === 0).map((l) => removeLink(l.id)),
    ];
    for (const edits of removals) {
      const { design, inverse } = applied(edits);
      expect(integrityFaults(design)).toEqual([]);
      expect(applied(inverse, design).design).toEqual(demo);
    }
  });

  test('random lists of settings are undone by their inverse', () => {
    const setting = fc.record({ at: fc.nat(), what: fc.nat({ max: 5 }), value: fc.integer({ min: 0, max: 15 }) });
    fc.assert(
      fc.property(networks, fc.array(setting, { minLength: 1, maxLength: 8 }), (design, settings) => {
        const edits = settings.flatMap(({ at, what, value }): Edit[] => {
          const port = design.ports[at % Math.max(1, design.ports.length)];
          const bridge = design.switches[at % design.switches.length]!;
          if (what === 0) return [setField('switch', bridge.id, 'priority', value * 4096)];
          if (what === 1) return [setField('switch', bridge.id, 'vlanPriority.20', value === 0 ? null : value * 4096)];
          if (what === 2) return [{ type: 'settings', field: 'name', value: `n${value}` }];
          if (!port) return [];
          return what === 3
            ? [setField('port', port.id, 'cost', value === 0 ? null : value)]
            : [setField('port', port.id, `vlanCost.${10}`, value || null)];
        });
        const there = applyEdits(design, edits);
        if (!there.ok) throw new Error(there.faults[0]!.sentence);
        const back = applyEdits(there.design, there.inverse);
        expect(back.ok && back.design).toEqual(design);
      }),
      { numRuns: 300 },
    );
  });

  test('either every edit of a list holds or none', () => {
    const before = structuredClone(demo);
    const fault = first([setField('switch', 'gate', 'priority', 4096), setField('switch', 'gate', 'priority', 2478)]);
    expect(fault).toMatchObject({ path: ['switches', 5, 'priority'] });
    expect(demo).toEqual(before);
  });

  test.each<[string, Edit, RegExp]>([
    [
      'a priority between two steps',
      setField('switch', 'gate', 'priority', 2478),
      /steps of 4096 from 0 to 61440; the nearest is 4096/,
    ],
    [
      'a priority for VLAN 4095',
      setField('switch', 'gate', 'vlanPriority.4095', 4096),
      /VLAN '4095' is not legal: VLAN numbers run from 1 to 4094/,
    ],
    ['a cost of 0', setField('port', 'gate:1', 'cost', 0), /cost 0 is not legal: a whole number from 1 to 200000000/],
    [
      'a port priority of 100',
      setField('port', 'gate:1', 'priority', 100),
      /steps of 16 from 0 to 240; the nearest is 96/,
    ],
    [
      'a MAC address twice',
      setField('switch', 'gate', 'mac', '00:00:5e:00:53:33'),
      /Switches 'gate' and 'crane-yard' have the same MAC address|Switches 'crane-yard' and 'gate'/,
    ],
    ['a group MAC address', setField('switch', 'gate', 'mac', '01:00:5e:00:53:33'), /group address/],
    ['a name twice', setField('switch', 'gate', 'name', 'workshop'), /Two switches are called 'workshop'/],
    [
      'a name of 300 characters',
      setField('switch', 'gate', 'name', 'x'.repeat(300)),
      /has 300 characters: at most 100/,
    ],
    ['VLAN 4095', setField('vlan', 'v110', 'number', 4095), /VLAN 4095 is not legal/],
    ['a VLAN twice', setField('vlan', 'v110', 'number', 120), /VLAN 120 is listed twice/],
    ['a VLAN list with letters', setField('port', 'gate:1', 'vlans', '110-x'), /cannot be read at '110-x'/],
    ['a port number twice', setField('port', 'gate:1', 'number', 2), /port number 2 twice/],
    ['a port name twice', setField('port', 'gate:1', 'name', '2'), /two ports called '2'/],
    ['an unknown switch', setField('port', 'gate:1', 'switch', 'nowhere'), /no switch 'nowhere'/],
    [
      'a link to a missing port',
      { type: 'add', kind: 'link', value: { id: 'l', a: { port: 'x' }, b: { host: 'ticket-desk' } } },
      /no port 'x'/,
    ],
    [
      'two cables in one port',
      { type: 'add', kind: 'link', value: { id: 'l', a: { port: 'gate:1' }, b: { port: 'quay-b:9' } } },
      /a port takes one cable/,
    ],
    [
      'a link from a port to itself',
      { type: 'add', kind: 'link', value: { id: 'l', a: { port: 'quay-b:9' }, b: { port: 'quay-b:9' } } },
      /needs two different ends/,
    ],
    [
      'a member on another switch',
      setField('bundle', 'quay-b:lag102', 'members', ['gate:1']),
      /sits on another switch/,
    ],
    ['an edit of what is gone', setField('switch', 'gone', 'priority', 0), /is not in the design/],
    [
      'an unknown mode',
      { type: 'settings', field: 'mode', value: 'none' },
      /Mode 'none' is not known: it is one of per-vlan-rstp/,
    ],
    [
      'a field of no element',
      { type: 'set', kind: 'switch', id: 'gate', field: 'colour', value: 1 },
      /A switch has no field 'colour'/,
    ],
  ])('%s is refused with a sentence', (_, edit, sentence) => expect(first([edit])?.sentence).toMatch(sentence));

  test('a cost is held to the scale of its switch', () => {
    expect(
      first([setField('port', 'gate:1', 'cost', 70000), setField('switch', 'gate', 'costScale', 'short')])?.sentence,
    ).toMatch(/from 1 to 65535 on the 16-bit scale/);
  });

  test('edits of different fields do not collide, those of one field do, and removing collides with changing', () => {
    const cost = setField('port', 'gate:1', 'cost', 5);
    expect(editsCollide([cost], [setField('port', 'gate:1', 'priority', 0)])).toBe(false);
    expect(editsCollide([cost], [setField('port', 'gate:1', 'cost', 6)])).toBe(true);
    expect(editsCollide([cost], [{ type: 'remove', kind: 'port', id: 'gate:1' }])).toBe(true);
    expect(
      editsCollide([setField('switch', 'a', 'vlanPriority.10', 0)], [setField('switch', 'a', 'vlanPriority.20', 0)]),
    ).toBe(false);
  });
});

describe('settings', () => {
  const gate = (design: Design) => design.switches.find((s) => s.id === 'gate')!;
  test('a VLAN setting wins over that of all trees, which wins over the default', () => {
    expect(priorityInForce(demo, gate(demo), { vlan: 110, instance: null })).toEqual({
      value: 32768,
      source: 'default',
    });
    const all = applied(setBridgePriority(gate(demo), 'all', 8192)).design;
    expect(priorityInForce(all, gate(all), { vlan: 110, instance: null })).toEqual({
      value: 8192,
      source: 'all-trees',
    });
    const one = applied(setBridgePriority(gate(all), [110], 0), all).design;
    expect(priorityInForce(one, gate(one), { vlan: 110, instance: null })).toEqual({ value: 0, source: 'vlan' });
    expect(priorityInForce(one, gate(one), { vlan: 120, instance: null })).toEqual({
      value: 8192,
      source: 'all-trees',
    });
  });
  test('set for all trees, it holds in all trees', () => {
    const one = applied(setBridgePriority(gate(demo), [110, 120], 0)).design;
    const all = applied(setBridgePriority(gate(one), 'all', 61440), one).design;
    for (const vlan of [110, 120, 130])
      expect(priorityInForce(all, gate(all), { vlan, instance: null }).value).toBe(61440);
  });
  test('a cost given back leaves no trace', () => {
    const port = demo.ports.find((p) => p.id === 'gate:1')!;
    const set = applied(setPortCost('port', port, [110], 77)).design;
    const back = applied(
      setPortCost(
        'port',
        set.ports.find((p) => p.id === 'gate:1')!,
        [110],
        null,
      ),
      set,
    ).design;
    expect(back).toEqual(demo);
  });
});

describe('history', () => {
  const edit = (revision: number) => ({ revision, kind: 'edit' as const, target: null, label: `e${revision}` });
  test('undo and redo walk over the edits, and a new edit ends what could be redone', () => {
    const steps = [edit(1), edit(2), { revision: 3, kind: 'undo' as const, target: 2, label: 'e2' }];
    expect(historyOf(steps)).toMatchObject({
      undo: [{ revision: 1, label: 'e1' }],
      redo: [{ revision: 2, label: 'e2' }],
    });
    const redone = historyOf([...steps, { revision: 4, kind: 'redo', target: 2, label: 'e2' }]);
    expect(redone.undo.map((e) => e.revision)).toEqual([1, 2]);
    expect(historyOf([...steps, edit(4)]).redo).toEqual([]);
  });
  test('step by step gives the same as all at once', () => {
    const kinds = fc.array(fc.constantFrom('edit', 'undo', 'redo'), { maxLength: 40 });
    fc.assert(
      fc.property(kinds, (list) => {
        const steps: Parameters<typeof advance>[1][] = [];
        let history = historyOf([]);
        list.forEach((kind, i) => {
          const revision = i + 1;
          const source = kind === 'undo' ? history.undo.at(-1) : history.redo.at(-1);
          if (kind !== 'edit' && !source) return;
          const step =
            kind === 'edit'
              ? edit(revision)
              : { revision, kind: kind as 'undo', target: source!.revision, label: source!.label };
          steps.push(step);
          history = advance(history, step);
        });
        expect(historyOf(steps)).toEqual(history);
      }),
    );
  });
});

describe('reading', () => {
  test('a design survives being written and read', () => {
    expect(readDesignText(JSON.stringify(demo))).toEqual({ ok: true, design: demo });
    expect(readDesignText(`\uFEFF${JSON.stringify(demo)}`).ok).toBe(true);
  });
  test.each<[string, string, RegExp]>([
    ['truncated JSON', JSON.stringify(demo).slice(0, 4000), /not complete JSON/],
    ['another file', '{"a":1}', /not a Knot Path design/],
    [
      'a later version',
      JSON.stringify({ ...demo, version: 9 }),
      /format version 9; this release reads up to version 1/,
    ],
    ['a missing field', JSON.stringify({ ...demo, mode: undefined }), /The document needs a spanning tree mode/],
    ['a missing list', JSON.stringify({ ...demo, links: undefined }), /The document needs the field 'links'/],
    ['an unknown field', JSON.stringify({ ...demo, extra: 1 }), /'extra' is not part of the design format/],
  ])('%s is refused with a sentence', (_, text, sentence) => {
    const read = readDesignText(text);
    expect(read.ok ? '' : read.faults[0]!.sentence).toMatch(sentence);
  });
  test('a fault names its path', () => {
    const broken = structuredClone(demo);
    broken.switches[3]!.priority = 5;
    const read = readDesign(broken);
    expect(read.ok ? '' : formatPath(read.faults[0]!.path)).toBe('switches[3].priority');
  });
  test.each(['mode', 'costScale', 'bundleCost', 'name'])('a value without a text form is refused as %s', (field) => {
    const read = readDesign({ ...demo, [field]: { toString: 0 } });
    expect(read.ok ? '' : read.faults[0]!.sentence).toMatch(/[.]$/);
  });
  test('an id cannot be changed', () => {
    const edit = setField('switch', demo.switches[0]!.id, 'id', 'other');
    expect(first([edit])?.sentence).toMatch(/cannot be changed/);
  });
  test('a position off the sheet names its limits', () => {
    const edit = setField('switch', demo.switches[0]!.id, 'x', 1e9);
    expect(first([edit])?.sentence).toBe('Position 1000000000 is not on the sheet: a number from -100000 to 100000.');
  });
  test('an empty design is right', () => expect(readDesign(emptyDesign('x')).ok).toBe(true));
  test('an element that is added is found', () => {
    const { design } = applied([addElement('vlan', { id: 'v7', number: 7 })]);
    expect(design.vlans.at(-1)).toEqual({ id: 'v7', number: 7 });
  });
});
