import { asCabled, asMeant } from '../../demo/brackwater';
import { applyEdits, emptyDesign, setField } from '../design';
import type { Design, Edit } from '../design';
import { csvOmissions } from './csv-omissions';

const changed = (design: Design, ...edits: Edit[]): Design => {
  const applied = applyEdits(design, edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

describe('what a table leaves out', () => {
  test('a design that a table holds whole leaves nothing out', () => {
    const design: Design = {
      ...emptyDesign('small'),
      switches: [{ id: 's', name: 's', mac: '00:00:5e:00:53:01', priority: 4096, tier: 'core' }],
      vlans: [{ id: 'v', number: 10, name: 'ten' }],
    };
    for (const table of ['switches', 'links', 'vlans'] as const) expect(csvOmissions(design, table)).toEqual([]);
    const timed = changed(design, setField('switch', 's', 'helloTime', 1));
    expect(csvOmissions(timed, 'switches')).toEqual(['priorities by tree, timers and other settings of 1 switch']);
    expect(csvOmissions(timed, 'links')).toEqual([]);
  });
  test('the demo names cables to hosts, bundles, links whose ends differ, and what no table has', () => {
    const words = csvOmissions(asCabled(), 'links').join('; ');
    expect(words).toMatch(/cables to hosts; \d+ bundles; the VLANs of the second end of 1 link whose ends differ/);
    expect(words).toMatch(/what no table has: 6 hosts/);
    const down = changed(asMeant(), setField('link', asMeant().links[0]!.id, 'down', true));
    expect(csvOmissions(down, 'links')).toContain('that 1 link is down');
  });
});
