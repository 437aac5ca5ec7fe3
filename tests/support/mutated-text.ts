/** Texts with small damages, as files get them on their way. */
import fc from 'fast-check';

/** Pieces that break things: signs of each syntax, names of every object, numbers out of range. */
const PIECES = [
  '"',
  "'",
  '<',
  '>',
  '</',
  '/>',
  '<?',
  '?>',
  '<![CDATA[',
  ']]>',
  '<!--',
  '&',
  '&#0;',
  '{',
  '}',
  '[',
  ']',
  ',',
  ';',
  '\t',
  '\r',
  '\n',
  ':',
  '\\',
  '\\u0000',
  '\u0000',
  '\uFFFD',
  '\uFEFF',
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
  'null',
  'true',
  'NaN',
  '-1',
  '1e999',
  '0.5',
  '4095',
  '99999999999999999999',
  '"a":',
  '"id":"a",',
  '[[[[[[[[',
  '{"a":'.repeat(60),
  '<g>'.repeat(80),
] as const;

/** A text with some of its pieces cut, doubled, swapped or replaced. */
export const mutated = (source: string) => {
  const at = fc.nat({ max: source.length });
  const cut = fc.tuple(at, fc.nat({ max: 40 })).map(
    ([i, n]) =>
      (t: string) =>
        t.slice(0, i) + t.slice(i + n),
  );
  const put = fc.tuple(at, fc.oneof(fc.constantFrom(...PIECES), fc.string({ maxLength: 8 }))).map(
    ([i, piece]) =>
      (t: string) =>
        t.slice(0, i) + piece + t.slice(i),
  );
  const end = at.map((i) => (t: string) => t.slice(0, i));
  const double = fc.tuple(at, fc.nat({ max: 60 }), at).map(
    ([i, n, to]) =>
      (t: string) =>
        t.slice(0, to) + t.slice(i, i + n) + t.slice(to),
  );
  const word = fc.constantFrom(...PIECES).chain((piece) =>
    at.map((i) => (t: string) => {
      const found = /[\w-]+/g;
      found.lastIndex = i;
      const match = found.exec(t);
      return match ? t.slice(0, match.index) + piece + t.slice(match.index + match[0].length) : t;
    }),
  );
  return fc
    .array(
      fc.oneof(
        { weight: 3, arbitrary: put },
        cut,
        double,
        { weight: 3, arbitrary: word },
        { weight: 1, arbitrary: end },
      ),
      { minLength: 1, maxLength: 4 },
    )
    .map((list) => list.reduce((text, change) => change(text), source));
};
