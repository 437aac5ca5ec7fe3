/**
 * Harrow Fell Quarry: two closets of rapid switches, one tree each for all VLANs, at a core with a tree per VLAN. Each closet
 * hangs on one uplink: with a second one the wrong ports would block. Three ways out, each a variant.
 */
import type { Design } from '../core/design';
import { DesignDraft } from './build';

const ALL = '10,20,30';
const CLOSETS = [
  { name: 'kiln', x: 40, mac: 0x31 },
  { name: 'sorting', x: 460, mac: 0x41 },
] as const;

function network(): DesignDraft {
  const draft = new DesignDraft('Harrow Fell Quarry')
    .vlan(10, 'office', 0)
    .vlan(20, 'plant', 1)
    .vlan(30, 'cameras', 2)
    .switch('hall-1', '00:00:5e:00:53:21', 'core', 180, 40, {
      vlanPriority: { '10': 4096, '20': 4096, '30': 8192 },
    })
    .switch('hall-2', '00:00:5e:00:53:22', 'core', 480, 40, {
      vlanPriority: { '10': 8192, '20': 8192, '30': 4096 },
    });
  draft.link(['hall-1', 1], ['hall-2', 1], 10_000, ALL);
  CLOSETS.forEach(({ name, x, mac }, i) => {
    for (const [j, letter] of ['a', 'b'].entries())
      draft.switch(`${name}-${letter}`, `00:00:5e:00:53:${(mac + j).toString(16)}`, 'access', x + j * 170, 240, {
        group: name,
        protocol: 'rstp',
      });
    draft
      .link(['hall-1', 2 + i], [`${name}-a`, 1], 1000, ALL)
      .link([`${name}-a`, 2], [`${name}-b`, 2], 1000, ALL)
      .host(`${name}-desk`, [`${name}-a`, 10], 1000, 10, { x: x + 20, y: 380 })
      .host(`${name}-camera`, [`${name}-b`, 10], 100, 30, { x: x + 190, y: 380 });
  });
  draft
    .host('office-server', ['hall-1', 20], 10_000, 10, { x: 20, y: 60 })
    .host('recorder', ['hall-2', 20], 10_000, 30, { x: 660, y: 60 });
  draft.design.workplaces = [{ id: 'place', at: 'office-server', vlan: 10 }];
  return draft;
}

/** With one uplink a closet, it works. */
export const quarryAsItIs = (): Design => network().design;

/** The second uplink of each closet, from its other switch to the other core switch. */
function withUplinks(): DesignDraft {
  const draft = network();
  CLOSETS.forEach(({ name }, i) => draft.link(['hall-2', 2 + i], [`${name}-b`, 1], 1000, ALL));
  return draft;
}

/** The closets run a tree per VLAN as the core does. */
export function quarryPerVlan(): Design {
  const { design } = withUplinks();
  return { ...design, switches: design.switches.map(({ protocol: _, ...s }) => s) };
}

/** The core runs one rapid tree as the closets do. */
export function quarryOneTree(): Design {
  const { design } = withUplinks();
  const place = (name: string) => (name === 'hall-1' ? 4096 : name === 'hall-2' ? 8192 : undefined);
  return {
    ...design,
    mode: 'rstp',
    switches: design.switches.map(({ protocol: _, vlanPriority: __, ...s }) => {
      const priority = place(s.name);
      return priority === undefined ? s : { ...s, priority };
    }),
  };
}

/** All of them run instances: office and plant over one core switch, cameras over the other. */
export function quarryInstances(): Design {
  const { design } = withUplinks();
  const place: Readonly<Record<string, Record<string, number>>> = {
    'hall-1': { '0': 4096, '1': 4096, '2': 8192 },
    'hall-2': { '0': 8192, '1': 8192, '2': 4096 },
  };
  return {
    ...design,
    mode: 'mstp',
    regions: [{ id: 'quarry', name: 'quarry', revision: 1, map: { '1': '10,20', '2': '30' } }],
    switches: design.switches.map(({ protocol: _, vlanPriority: __, ...s }) => {
      const instancePriority = place[s.name];
      return instancePriority === undefined ? s : { ...s, instancePriority };
    }),
  };
}
