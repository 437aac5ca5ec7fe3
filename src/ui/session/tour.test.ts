import { STAGES } from './stages';
import { tourAfter, tourSteps } from './tour';

test('each stage has a tour until it was seen, the others keep theirs', () => {
  for (const { id } of STAGES) {
    expect(tourSteps('', id).length).toBeGreaterThan(1);
    const after = tourAfter('', id);
    expect(tourSteps(after, id)).toEqual([]);
    for (const other of STAGES)
      if (other.id !== id) expect(tourSteps(after, other.id)).toEqual(tourSteps('', other.id));
  }
});

test('turned off, nothing is said any more; what is stored and not known is left out', () => {
  expect(tourAfter('trees nonsense', 'off')).toBe('trees off');
  for (const { id } of STAGES) expect(tourSteps('trees off', id)).toEqual([]);
});
