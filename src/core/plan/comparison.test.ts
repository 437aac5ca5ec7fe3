import { asCabled, asMeant } from '../../demo/brackwater';
import { emptyDesign } from '../design';
import { figuresOf } from './comparison';

test('the demo as meant is better than as cabled in what was wrong, and says what it takes', () => {
  const cabled = figuresOf(asCabled());
  const meant = figuresOf(asMeant(), asCabled());
  expect(cabled.findings.fault).toBeGreaterThan(0);
  expect(meant.findings.fault).toBe(0);
  expect(meant.failures.separating).toBeLessThan(cabled.failures.separating);
  expect(meant.goals.met).toBeGreaterThan(cabled.goals.met);
  expect(cabled.touches).toBeNull();
  expect(meant.touches!.devices).toBeGreaterThan(2);
  expect(meant.touches!.settings).toBeGreaterThanOrEqual(meant.touches!.devices);
  expect(cabled.worst).toContain('switch');
});

test('goals of availability count with the others', () => {
  const goal = { id: 'stay', type: 'stays-connected', vlans: 'all', among: 'switches' } as const;
  const { met, of } = figuresOf(asMeant()).goals;
  const more = { ...asMeant(), goals: [...asMeant().goals, goal] };
  expect(figuresOf(more).goals).toEqual({ met, of: of + 1 });
});

test('a design compared with itself touches nothing', () => {
  expect(figuresOf(asMeant(), asMeant()).touches).toEqual({ settings: 0, devices: 0, cables: 0 });
});

test('an empty design has figures too', () => {
  expect(figuresOf(emptyDesign('empty'))).toMatchObject({
    switches: 0,
    worst: null,
    outage: null,
    narrowest: null,
    trees: 1,
  });
});
