/** Examples about roots and paths. */
import type { Design } from '../../core/design';
import { DesignDraft } from '../build';

const mac = (last: string) => `00:00:5e:00:53:${last}`;
const table = (vlans: readonly number[], value: number) => Object.fromEntries(vlans.map((v) => [String(v), value]));

/** No root is placed: the oldest switch, in a cellar, has the lowest address. */
export function accidentalRoot(): Design {
  const draft = new DesignDraft('Town library')
    .vlan(10, 'catalogue', 0)
    .switch('hall', mac('a1'), 'core', 320, 60)
    .switch('reading-room', mac('b4'), 'access', 120, 220)
    .switch('children', mac('c7'), 'access', 320, 240)
    .switch('cellar', mac('02'), 'access', 520, 220)
    .link(['hall', 1], ['reading-room', 1], 1000, '10')
    .link(['hall', 2], ['children', 1], 1000, '10')
    .link(['hall', 3], ['cellar', 1], 1000, '10')
    .link(['reading-room', 2], ['children', 2], 1000, '10')
    .link(['children', 3], ['cellar', 2], 1000, '10')
    .host('catalogue', ['hall', 20], 1000, 10, { x: 500, y: 40 })
    .host('terminal', ['reading-room', 20], 1000, 10, { x: 60, y: 320 });
  draft.design.mode = 'rstp';
  return draft.design;
}

/** One, two and three switches; the cables of one side are faster. */
export function pyramid(): Design {
  const draft = new DesignDraft('Observatory')
    .vlan(20, 'instruments', 1)
    .switch('dome', mac('10'), 'core', 320, 40, { priority: 4096 })
    .switch('west-wing', mac('21'), 'distribution', 200, 170)
    .switch('east-wing', mac('22'), 'distribution', 440, 170)
    .switch('workshop', mac('31'), 'access', 80, 310)
    .switch('library', mac('32'), 'access', 320, 310)
    .switch('guest-house', mac('33'), 'access', 560, 310)
    .link(['dome', 1], ['west-wing', 1], 10000, '20')
    .link(['dome', 2], ['east-wing', 1], 1000, '20')
    .link(['west-wing', 2], ['east-wing', 2], 10000, '20')
    .link(['west-wing', 3], ['workshop', 1], 1000, '20')
    .link(['west-wing', 4], ['library', 1], 100, '20')
    .link(['east-wing', 3], ['library', 2], 1000, '20')
    .link(['east-wing', 4], ['guest-house', 1], 1000, '20')
    .link(['workshop', 2], ['library', 3], 1000, '20')
    .link(['library', 4], ['guest-house', 2], 100, '20');
  draft.design.mode = 'rstp';
  return draft.design;
}

/** Two cables between two switches: every VLAN uses the first one, the second carries nothing. */
export function twoTrunks(): Design {
  const all = '10,20,30,40';
  const draft = new DesignDraft('Brick works')
    .vlan(10, 'office', 0)
    .vlan(20, 'phones', 1)
    .vlan(30, 'kilns', 2)
    .vlan(40, 'cameras', 3)
    .switch('office', mac('11'), 'core', 180, 120, { vlanPriority: table([10, 20, 30, 40], 4096) })
    .switch('kiln-hall', mac('12'), 'access', 520, 120)
    .link(['office', 1], ['kiln-hall', 1], 1000, all)
    .link(['office', 2], ['kiln-hall', 2], 1000, all)
    .host('phone-server', ['office', 20], 1000, 20, { x: 100, y: 240 })
    .host('kiln-control', ['kiln-hall', 20], 1000, 30, { x: 560, y: 240 });
  draft.design.goals = [30, 40].map((vlan) => ({
    id: `second-${vlan}`,
    vlans: String(vlan),
    type: 'carries' as const,
    port: 'kiln-hall:2',
  }));
  return draft.design;
}

/** Two instances over two cores; one switch maps one VLAN otherwise, and so is a region of its own. */
export function instances(): Design {
  const all = '10,11,20,21';
  const draft = new DesignDraft('County archive')
    .vlan(10, 'staff', 0)
    .vlan(11, 'phones', 1)
    .vlan(20, 'visitors', 2)
    .vlan(21, 'scanners', 3)
    .switch('core-1', mac('41'), 'core', 200, 60, { instancePriority: { 0: 4096, 1: 4096, 2: 8192 } })
    .switch('core-2', mac('42'), 'core', 480, 60, { instancePriority: { 0: 8192, 1: 8192, 2: 4096 } })
    .switch('stacks', mac('51'), 'access', 120, 240)
    .switch('reading-hall', mac('52'), 'access', 340, 240, { vlanInstance: { 21: 1 } })
    .switch('dark-room', mac('53'), 'access', 560, 240)
    .link(['core-1', 1], ['core-2', 1], 10000, all)
    .link(['core-1', 2], ['stacks', 1], 1000, all)
    .link(['core-2', 2], ['stacks', 2], 1000, all)
    .link(['core-1', 3], ['reading-hall', 1], 1000, all)
    .link(['core-2', 3], ['reading-hall', 2], 1000, all)
    .link(['core-1', 4], ['dark-room', 1], 1000, all)
    .link(['core-2', 4], ['dark-room', 2], 1000, all);
  draft.design.mode = 'mstp';
  draft.design.regions = [{ id: 'archive', name: 'archive', revision: 1, map: { 1: '10-11', 2: '20-21' } }];
  return draft.design;
}

/** A closet of standard switches on a core with a tree per VLAN: with its second uplink the wrong ports block. */
export function mixedCloset(): Design {
  const all = '1,30,31';
  const draft = new DesignDraft('Cannery')
    .vlan(1, 'switches', 3)
    .vlan(30, 'line', 0)
    .vlan(31, 'scales', 1)
    .switch('core-1', mac('61'), 'core', 200, 60, { vlanPriority: table([1, 30], 4096) })
    .switch('core-2', mac('62'), 'core', 480, 60, { vlanPriority: { ...table([31], 4096), ...table([1, 30], 8192) } })
    .switch('closet-a', mac('71'), 'access', 220, 240, { protocol: 'rstp' })
    .switch('closet-b', mac('72'), 'access', 460, 240, { protocol: 'rstp' })
    .link(['core-1', 1], ['core-2', 1], 10000, all)
    .link(['core-1', 2], ['closet-a', 1], 1000, all)
    .link(['core-2', 2], ['closet-b', 1], 1000, all)
    .link(['closet-a', 2], ['closet-b', 2], 1000, all)
    .host('scale', ['closet-b', 20], 100, 31, { x: 520, y: 340 });
  return draft.design;
}
