import { applyEdits, emptyDesign } from '../../design';
import type { Region, Switch } from '../../design';
import { compareConfigs, differenceSentences } from './compare';
import { configurationDigest, mstConfigOf, regionMap } from './config';
import { moveVlans, moveVlansAt } from './edit';

const region = (map: Record<string, string>): Region => ({ id: 'r', name: 'harbour', revision: 3, map });
const sw = (id: string, more: Partial<Switch> = {}): Switch => ({
  id,
  name: id,
  mac: `00:00:5e:00:53:0${id.length}`,
  ...more,
});

describe('configuration digest', () => {
  test('all VLANs in the CIST give the value of the standard', () => {
    expect(configurationDigest(new Uint16Array(4096))).toBe('AC36177F50283CD4B83821D8AB26DE62');
  });
  test('one VLAN in another instance gives another digest', () => {
    const map = new Uint16Array(4096);
    map[10] = 1;
    expect(configurationDigest(map)).not.toBe('AC36177F50283CD4B83821D8AB26DE62');
  });
  test('entries for the reserved VLANs 0 and 4095 do not count', () => {
    const map = new Uint16Array(4096);
    map[0] = map[4095] = 7;
    expect(configurationDigest(map)).toBe('AC36177F50283CD4B83821D8AB26DE62');
  });
});

describe('the configuration of a switch', () => {
  const design = { regions: [region({ '1': '10-20', '2': '30' })] };
  test('is that of its region', () => {
    const config = mstConfigOf(design, sw('a'));
    expect([config.name, config.revision, config.map[15], config.map[30], config.map[40]]).toEqual([
      'harbour',
      3,
      1,
      2,
      0,
    ]);
    expect(config.instances).toEqual([1, 2]);
  });
  test('with a VLAN of its own elsewhere it is another region, and the comparison names the VLAN', () => {
    const a = mstConfigOf(design, sw('a'));
    const b = mstConfigOf(design, sw('b', { vlanInstance: { '12': 2 } }));
    expect(a.key).not.toBe(b.key);
    expect(compareConfigs(a, b)).toEqual({
      name: false,
      revision: false,
      digest: true,
      vlans: [{ vlans: '12', count: 1, a: 1, b: 2 }],
    });
    expect(differenceSentences('a', a, 'b', b)).toEqual(['VLAN 12: instance 1 on a, instance 2 on b.']);
  });
  test('a blank more in the name keeps two switches apart', () => {
    const b = mstConfigOf(design, sw('b', { mstName: 'harbour ' }));
    expect(differenceSentences('a', mstConfigOf(design, sw('a')), 'b', b)).toEqual([
      "Region name: 'harbour' on a, 'harbour ' on b.",
    ]);
  });
  test('without any region each switch is one of its own, named after its address', () => {
    const [a, b] = [sw('a'), sw('bb')].map((s) => mstConfigOf({ regions: [] }, s));
    expect(a!.name).toBe('00:00:5e:00:53:01');
    expect(a!.key).not.toBe(b!.key);
    expect(a!.digest).toBe('AC36177F50283CD4B83821D8AB26DE62');
  });
});

describe('moving VLANs', () => {
  const withRegion = (map: Record<string, string>) => ({ ...emptyDesign('d'), regions: [region(map)] });
  const mapAfter = (map: Record<string, string>, vlans: number[], instance: number) => {
    const design = withRegion(map);
    const applied = applyEdits(design, moveVlans(design.regions[0]!, vlans, instance));
    if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
    return applied.design.regions[0]!.map;
  };
  test('into an instance takes them out of the one they were in', () => {
    expect(mapAfter({ '1': '10-20', '2': '30' }, [12, 13], 2)).toEqual({ '1': '10-11,14-20', '2': '12-13,30' });
  });
  test('to the CIST leaves the instance, even without VLANs', () => {
    expect(mapAfter({ '1': '10' }, [10], 0)).toEqual({ '1': '' });
  });
  test('that are there already changes nothing', () => {
    expect(moveVlans(region({ '1': '10-12' }), [11], 1)).toEqual([]);
  });
  test('on one switch back to what the region says leaves no entry', () => {
    const r = region({ '1': '10' });
    expect(moveVlansAt(sw('a', { vlanInstance: { '10': 2 } }), r, [10], 1)).toEqual([
      { type: 'set', kind: 'switch', id: 'a', field: 'vlanInstance.10', value: null },
    ]);
    expect(regionMap(r)[10]).toBe(1);
  });
});

describe('refused', () => {
  const sentence = (edits: Parameters<typeof applyEdits>[1]) => {
    const design = { ...emptyDesign('d'), regions: [region({ '1': '10' })], switches: [sw('a')] };
    const applied = applyEdits(design, edits);
    return applied.ok ? null : applied.faults[0]!.sentence;
  };
  const set = (kind: 'region' | 'switch', id: string, field: string, value: never) =>
    sentence([{ type: 'set', kind, id, field, value }]);
  test('a VLAN in two instances', () => {
    expect(set('region', 'r', 'map.2', '5-10' as never)).toBe(
      "VLAN 10 is in instance 1 and in instance 2 of region 'harbour': a VLAN is in one instance only.",
    );
  });
  test('revision 65536', () => {
    expect(set('region', 'r', 'revision', 65536 as never)).toBe(
      'Revision 65536 is not legal: a whole number from 0 to 65535.',
    );
  });
  test('a name over 32 octets, counted in octets and not in letters', () => {
    expect(set('region', 'r', 'name', 'ü'.repeat(17) as never)).toMatch(/has 34 octets: at most 32 are allowed/);
    expect(set('region', 'r', 'name', 'ü'.repeat(16) as never)).toBeNull();
  });
  test('instance 0', () => {
    expect(set('region', 'r', 'map.0', '10' as never)).toMatch(/^Instance 0 is the CIST and cannot be edited/);
    const priority = (instance: number) =>
      sentence([{ type: 'set', kind: 'switch', id: 'a', field: `instancePriority.${instance}`, value: 4096 }]);
    expect([priority(0), priority(4094)]).toEqual([null, null]);
    expect(priority(4095)).toMatch(/^Instance '4095' is not legal/);
  });
  test('instance 4095', () => {
    expect(set('region', 'r', 'map.4095', '11' as never)).toMatch(/^Instance '4095' is not legal/);
  });
  test('65 instances', () => {
    const edits = Array.from({ length: 64 }, (_, i) => ({
      type: 'set' as const,
      kind: 'region' as const,
      id: 'r',
      field: `map.${i + 2}`,
      value: String(100 + i),
    }));
    expect(sentence(edits)).toBe("Region 'harbour' has 65 instances: at most 64 are allowed.");
    expect(sentence(edits.slice(1))).toBeNull();
  });
  test('a region that does not exist', () => {
    expect(set('switch', 'a', 'region', 'q' as never)).toBe("There is no region 'q' in this design.");
  });
});
