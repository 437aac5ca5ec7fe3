import fc from 'fast-check';
import { boxRound, boxesMeet } from '../../chart/geometry';
import { FACT_PLATE, factLines, factWidth } from './fact-places';

/** Switches in rows, with links between neighbouring rows. */
const sheets = fc.tuple(fc.integer({ min: 2, max: 5 }), fc.integer({ min: 1, max: 4 })).map(([wide, rows]) => {
  const at = Array.from({ length: wide * (rows + 1) }, (_, i) => ({
    x: (i % wide) * 190,
    y: Math.floor(i / wide) * 170,
  }));
  const links = Array.from({ length: rows }, (_, r) =>
    Array.from({ length: wide }, (_, c) =>
      [0, 1].map((by) => ({
        ends: [r * wide + c, (r + 1) * wide + ((c + by) % wide)] as const,
        texts: [`${c}: 20 000`, `${by}: 2 000`] as const,
      })),
    ),
  ).flat(2);
  return { at, links };
});

test('costs stand on their own half of their link, off the plates, and hardly one lies on another', () => {
  let [texts, meeting] = [0, 0];
  fc.assert(
    fc.property(sheets, ({ at, links }) => {
      const lines = factLines(links, at, [...at.keys()]);
      const boxes = lines.flatMap((l) => l.texts.map((t) => boxRound(t, factWidth(t.text), 14)));
      const plates = at.map((p) => boxRound(p, FACT_PLATE.width, FACT_PLATE.height));
      texts += boxes.length;
      boxes.forEach((box, i) => {
        if ([...plates, ...boxes.slice(i + 1)].some((other) => boxesMeet(box, other))) meeting++;
      });
      for (const { from, to, texts: own } of lines)
        own.forEach((t, side) => {
          const [near, far] = side === 0 ? [from, to] : [to, from];
          const away = (p: typeof from) => Math.hypot(p.x - t.x, p.y - t.y);
          expect(away(near)).toBeLessThan(away(far));
        });
    }),
  );
  expect(meeting / texts).toBeLessThan(0.05);
});
