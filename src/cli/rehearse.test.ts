import { file, folder, printed } from '../../tests/support/command-line';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { asMeant } from '../demo/brackwater';
import { readSeconds, rehearseDesign } from './rehearse';

describe('rehearse', () => {
  const meant = file('meant.json', JSON.stringify(asMeant()));
  test('tells the story, and as JSON final roles, timelines and gaps; frames go into a file', async () => {
    expect(await rehearseDesign(meant, { script: 'uplink' })).toBe(0);
    expect(printed.out).toMatch(/5\.000 s  Link quay-a 3 to ticket-hall 1 lost\./);
    printed.out = '';
    const frames = path.join(folder, 'run.pcapng');
    expect(await rehearseDesign(meant, { script: 'stranger', json: true, pcapng: frames })).toBe(0);
    const found = JSON.parse(printed.out);
    expect(found.gaps).toMatchObject([{ from: 'ferry-server', to: 'ticket-desk', vlan: 110 }]);
    expect(Math.round(found.gaps[0].seconds)).toBe(60);
    expect(found.roles.length).toBeGreaterThan(50);
    expect(readFileSync(frames).subarray(0, 4).toString('hex')).toBe('0a0d0d0a');
  });
  test('tells which goals are met once the network has settled as the events leave it', async () => {
    const lost = (events: object[]) =>
      file('lost.json', JSON.stringify({ id: 'x', name: 'x', until: 12, probes: [], events }));
    const off = { id: 'a', at: 5, kind: 'root-off', vlan: 110 };
    await rehearseDesign(meant, { script: lost([off]), json: true });
    const { goals } = JSON.parse(printed.out);
    expect(goals).toContainEqual({
      goal: 'core-east is root of VLANs 110, 120, 130, core-west comes next.',
      state: 'broken',
      reason: 'Core-east is off in VLANs 110, 120, 130.',
    });
    expect(goals.filter((g: { state: string }) => g.state === 'met').length).toBeGreaterThan(0);
    printed.out = '';
    await rehearseDesign(meant, { script: lost([off]) });
    expect(printed.out).toContain('Broken at the end: core-east is root of VLANs 110, 120, 130, core-west comes next.');
    printed.out = '';
    await rehearseDesign(meant, {
      script: lost([off, { id: 'b', at: 9, kind: 'switch-on', switch: 'core-east' }]),
      json: true,
    });
    expect(JSON.parse(printed.out).goals.filter((g: { state: string }) => g.state === 'broken')).toEqual([]);
  });
  test('takes a script from a file, and says what is wrong with one', async () => {
    const own = file('own.json', JSON.stringify({ id: 'x', name: 'x', until: 12, events: [] }));
    expect(await rehearseDesign(meant, { script: own, until: '12s' })).toBe(0);
    const wrong = file('wrong.json', JSON.stringify({ id: 'x', name: 'x', until: -1, events: [] }));
    expect(await rehearseDesign(meant, { script: wrong })).toBe(2);
    expect(printed.err).toMatch(/until: Time -1 is not legal: seconds from 0 to 36000/);
    expect(await rehearseDesign(meant, { script: 'uplink', until: 'soon' })).toBe(2);
    expect(printed.err).toMatch(/a time like 60s, 2m or 1h is asked for/);
    expect([readSeconds('60s'), readSeconds('2m'), readSeconds('1h'), readSeconds('x')]).toEqual([60, 120, 3600, null]);
  });
});
