/** No file, however broken, makes a reader throw: it is read, or refused with a sentence. */
import fc from 'fast-check';
import { applyEdits, integrityFaults, readDesignText, scanJson } from '@/core/design';
import type { Design } from '@/core/design';
import { readBlock, rowsOfBlock, SWITCHES, writeRows } from '@/core/editing/tables';
import type { Table } from '@/core/editing/tables';
import { readPart, partOf, partText, pastePart } from '@/core/editing';
import {
  exportCsv,
  exportGraphml,
  guarded,
  intakeAsDesign,
  intakeInto,
  readGraphml,
  readTable,
  unguarded,
} from '@/core/formats';
import { asCabled, asPair } from '@/demo/brackwater';
import { campus } from '@/demo/campus';
import { runs } from './support/runs';
import { smallDesign } from './support/small-design';
import { mutated } from './support/mutated-text';

const small = smallDesign();
const json = JSON.stringify(small);
const graph = exportGraphml(small);
const csv = exportCsv(small);
const lldp = JSON.stringify({
  lldp: {
    interface: [
      {
        e1: {
          chassis: { b: { id: { type: 'mac', value: '00:00:5e:00:53:02' } } },
          port: { id: { type: 'ifname', value: 'e1' } },
        },
      },
    ],
  },
});
const part = partText(
  partOf(small, [
    { kind: 'switch', id: 'a' },
    { kind: 'switch', id: 'b' },
  ]),
);

/** Words that belong to the program and not to a reader. */
const FOREIGN =
  /\bundefined\b|\bNaN\b|\[object|Invalid input|Invalid option|expected .* received|is not a function|Cannot read/;
const checkSentences = (faults: readonly { readonly sentence: string }[]) => {
  for (const { sentence } of faults) {
    expect(sentence).toMatch(/\S.*[.)]$/s);
    // What the file itself says is repeated between quotes.
    if (FOREIGN.test(sentence.replace(/'[^]*'/, ''))) throw new Error(`not in our words: ${sentence}`);
    expect(sentence.length).toBeLessThan(900);
  }
};
const checkDesign = (design: Design) => expect(integrityFaults(design)).toEqual([]);

// The same files in every run of the checks, so that a check fails for what was changed; `npm run fuzz` takes others.
const SEED = process.env.FUZZ ? {} : { seed: 20_261_128 };
const EACH = { ...runs(20_000), ...SEED };
const newId = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-new-${++n}`;
};

test('design files', () => {
  fc.assert(
    fc.property(mutated(json), (text) => {
      const read = readDesignText(text);
      if (read.ok) checkDesign(read.design);
      else checkSentences(read.faults);
    }),
    EACH,
  );
});

test('graphs', () => {
  fc.assert(
    fc.property(mutated(graph), (text) => {
      const read = readGraphml('g.graphml', text);
      if (read.ok) checkDesign(read.design);
      else checkSentences(read.faults);
    }),
    EACH,
  );
});

test('files of any kind into an open design, and undone again', () => {
  const any = fc.oneof(
    ...[json, graph, csv.switches, csv.links, csv.vlans, lldp, 'switch,port,neighbour,neighbour_port\na,1,b,1\n'].map(
      mutated,
    ),
  );
  fc.assert(
    fc.property(any, (text) => {
      const taken = intakeInto(small, [{ file: 'x', text }], newId());
      checkDesign(taken.design);
      checkSentences(taken.files.flatMap((f) => f.faults));
      const applied = applyEdits(small, taken.edits);
      if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
      const back = applyEdits(applied.design, applied.inverse);
      expect(back.ok && back.design).toEqual(small);
    }),
    EACH,
  );
});

test('tables as a new design', () => {
  fc.assert(
    fc.property(mutated(csv.switches), mutated(csv.links), (switches, links) => {
      const taken = intakeAsDesign('x', [
        { file: 's.csv', text: switches },
        { file: 'l.csv', text: links },
      ]);
      checkDesign(taken.design);
      checkSentences(taken.files.flatMap((f) => f.faults));
    }),
    EACH,
  );
});

test('what is pasted: a part of a network, or a block of cells', () => {
  fc.assert(
    fc.property(mutated(part), mutated('name\tmac\tpriority\nx\t00:00:5e:00:53:77\t4096\n'), (text, block) => {
      const read = readPart(text);
      if (read) {
        const applied = applyEdits(small, pastePart(small, read, newId(), { dx: 40, dy: 40 }).edits);
        if (!applied.ok) checkSentences(applied.faults);
      }
      const table = SWITCHES as unknown as Table;
      const anchor = { columns: ['name', 'mac', 'priority'], ids: [] };
      const written = writeRows(small, table, rowsOfBlock(small, table, readBlock(table, block), anchor).rows, newId());
      checkDesign(written.design);
      checkSentences(written.refused);
    }),
    EACH,
  );
});

test('where a JSON text breaks is where parsing breaks', () => {
  fc.assert(
    fc.property(fc.oneof(mutated(json.slice(0, 400)), fc.json(), fc.string()), (text) => {
      const parses = () => {
        try {
          JSON.parse(text);
          return true;
        } catch {
          return false;
        }
      };
      expect(scanJson(text).breaksAt === null).toBe(parses());
    }),
    { ...runs(5000), ...SEED },
  );
  const read = readDesignText('{\n  "format": "knot-path-design",\n  "version": one\n}');
  expect(read.ok ? '' : read.faults[0]!.sentence).toBe(
    'The file is not complete JSON: it breaks at line 3, column 14.',
  );
});

describe('found by the mutations', () => {
  const refusal = (text: string): string => {
    const read = readGraphml('g', text);
    return read.ok ? '' : read.faults[0]!.sentence;
  };
  test('a node without id, and XML that ends too early', () => {
    expect(refusal('<graphml><graph><node/></graph></graphml>')).toBe(
      'Node 1 has no id: every node of a graph needs one.',
    );
    expect(refusal('<graphml><graph></graph></graphml><?')).toMatch(/ends within <\? … \?>/);
    expect(refusal('<graphml><graph><![CDATA[ x </graph></graphml>')).toMatch(/ends within <!\[CDATA\[/);
    expect(refusal('<graphml><__proto__/></graphml>')).toMatch(/a name that no graph has/);
    expect(refusal('<g>'.repeat(5000) + '</g>'.repeat(5000))).toMatch(/nested more than 60 deep/);
  });
  test('a variant with a multi-chassis pair comes into an open design whole', () => {
    const text = JSON.stringify(asPair());
    const taken = intakeInto(asCabled(), [{ file: 'pair.json', text }], newId());
    expect(taken.files[0]!.faults).toEqual([]);
    expect(taken.design.pairs).toHaveLength(1);
    const [pair] = taken.design.pairs;
    expect(taken.design.bundles.filter((b) => b.shared !== undefined && pair!.switches.includes(b.switch)).length).toBe(
      asPair().bundles.filter((b) => b.shared !== undefined).length,
    );
    const again = intakeInto(taken.design, [{ file: 'pair.json', text }], newId2());
    expect(new Set(again.design.pairs.map((p) => p.domain)).size).toBe(2);
  });
  test('half of a pair is copied without what it shares', () => {
    const design = asPair();
    const one = partOf(design, [{ kind: 'switch', id: design.pairs[0]!.switches[0] }]);
    expect(one.pairs).toEqual([]);
    expect(applyEdits(design, pastePart(design, one, newId(), { dx: 0, dy: 0 }).edits).ok).toBe(true);
  });
  test('a port without a number is refused with what it needs', () => {
    const design = structuredClone(asCabled()) as unknown as { ports: Record<string, unknown>[] };
    delete design.ports[0]!.number;
    const read = readDesignText(JSON.stringify(design));
    expect(read.ok ? '' : read.faults[0]!.sentence).toBe('A port needs a number from 1 to 4095.');
  });
  test('faults of tables name the line of the file, also after empty lines and long cells', () => {
    const text = 'switch,mac\n\n"a\nb",x\n\n\nc,\n';
    expect(readTable('s', text, { required: ['switch', 'mac'], optional: [] }).rows.map((r) => r.row)).toEqual([3, 7]);
    const broken = readTable('s', 'switch,mac\n\n\n"a,b\n', { required: ['switch', 'mac'], optional: [] });
    expect(broken.faults[0]).toMatchObject({ row: 4, sentence: expect.stringContaining('not closed') });
  });
  test('line ends, encoding and keys that stand twice', () => {
    const columns = { required: ['switch', 'mac'], optional: [] };
    expect(readTable('s', 'switch,mac\ra,b\rc,d', columns).rows).toHaveLength(2);
    expect(readTable('s', 'switch,mac\r\na,b\rc,d\r\n', columns).faults[0]).toMatchObject({ row: 2 });
    expect(readTable('s', 'switch,mac\n\uFFFD,b\n', columns).faults[0]).toMatchObject({
      row: 2,
      sentence: expect.stringContaining('UTF-8'),
    });
    expect(readTable('s', 'switch,switch,mac\n', columns).faults[0]!.sentence).toContain("'switch' twice");
    expect(scanJson('{"a":[{"b":1},{"b":2}],"c":"\\"a\\":"}')).toEqual({ breaksAt: null, twice: null });
    expect(scanJson('{"a":1,"b":{"\\u0061":1,"a":2}}').twice).toBe('a');
    const twice = json.replace('"name":', '"name":"x","name":');
    expect(readDesignText(twice)).toMatchObject({ ok: false, faults: [{ code: 'duplicate-key' }] });
  });
  test('cells that a spreadsheet would run are guarded, and come back as they were', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const safe = guarded(text);
        expect(/^[=+\-@\t\r]/.test(safe) && !/^[+-]?\d+([.,]\d+)?$/.test(safe)).toBe(false);
        if (!/^'[=+\-@\t\r]/.test(text)) expect(unguarded(safe)).toBe(text);
      }),
    );
    const design = { ...small, switches: small.switches.map((s, i) => (i === 0 ? { ...s, name: '=1+1' } : s)) };
    const tables = exportCsv(design);
    expect(tables.switches).toContain("'=1+1");
    const taken = intakeAsDesign('x', [{ file: 's.csv', text: tables.switches }]);
    expect(taken.design.switches[0]!.name).toBe('=1+1');
  });
});

const newId2 = () => {
  let n = 0;
  return (prefix: string) => `${prefix}-second-${++n}`;
};

test('large files are read whole', () => {
  const large = campus({ switches: 400, vlans: 3, outcomes: 3 });
  const taken = intakeInto(small, [{ file: 'large.json', text: JSON.stringify(large) }], newId());
  expect(taken.design.switches).toHaveLength(small.switches.length + large.switches.length);
  const read = readGraphml('large.graphml', exportGraphml(large));
  expect(read.ok && read.design.links.length).toBe(large.links.length);
});
