/** Examples about bundles, pairs and guarded ports. */
import type { Bundle, Design } from '../../core/design';
import { DesignDraft } from '../build';

const mac = (last: string) => `00:00:5e:00:53:${last}`;

/** Two cables that are to be one; both ends wait for the other to begin. */
export function silentBundle(): Design {
  const draft = new DesignDraft('Print shop')
    .vlan(50, 'presses', 4)
    .switch('front-office', mac('81'), 'core', 180, 120, { priority: 4096 })
    .switch('press-hall', mac('82'), 'access', 520, 120)
    .link(['front-office', 1], ['press-hall', 1], 1000, '50')
    .link(['front-office', 2], ['press-hall', 2], 1000, '50')
    .bundle(
      { at: 'front-office', number: 101, members: [1, 2] },
      { at: 'press-hall', number: 101, members: [1, 2] },
      '50',
    )
    .host('plate-server', ['front-office', 20], 1000, 50, { x: 100, y: 240 })
    .host('press-3', ['press-hall', 20], 1000, 50, { x: 560, y: 240 });
  for (const bundle of draft.design.bundles) bundle.activity = 'passive';
  return draft.design;
}

/** Two core switches as one partner: closets and a server are bundled over both, and nothing is blocked. */
export function sharedCore(): Design {
  const draft = new DesignDraft('Tram depot')
    .vlan(60, 'signals', 0)
    .vlan(61, 'tickets', 1)
    .switch('core-1', mac('91'), 'core', 200, 80, { priority: 4096 })
    .switch('core-2', mac('92'), 'core', 480, 80, { priority: 4096 })
    .switch('hall', mac('a1'), 'access', 200, 260)
    .switch('yard', mac('a2'), 'access', 480, 260)
    .link(['core-1', 1], ['core-2', 1], 10000, '60,61')
    .link(['core-1', 2], ['core-2', 2], 10000, '60,61')
    .link(['core-1', 3], ['core-2', 3], 1000, '1')
    .link(['core-1', 5], ['hall', 1], 10000, '60,61')
    .link(['core-2', 5], ['hall', 2], 10000, '60,61')
    .link(['core-1', 6], ['yard', 1], 10000, '60,61')
    .link(['core-2', 6], ['yard', 2], 10000, '60,61')
    .bundle({ at: 'core-1', number: 101, members: [1, 2] }, { at: 'core-2', number: 101, members: [1, 2] }, '60,61')
    .host('signal-box', ['yard', 20], 1000, 60, { x: 560, y: 360 });
  const { design } = draft;
  design.pairs = [
    {
      id: 'pair',
      domain: 1,
      switches: ['core-1', 'core-2'],
      peer: ['core-1:1--core-2:1', 'core-1:2--core-2:2'],
      keepalive: 'core-1:3--core-2:3',
    },
  ];
  const end = (at: string, name: string, number: number, members: string[]): Bundle => ({
    id: `${at}:lag${number}`,
    switch: at,
    name,
    number,
    members,
    kind: 'lacp',
    vlans: '60,61',
  });
  ['hall', 'yard'].forEach((closet, i) => {
    design.bundles.push(end(closet, 'to-core', 110, [`${closet}:1`, `${closet}:2`]));
    for (const core of ['core-1', 'core-2'])
      design.bundles.push({ ...end(core, `to-${closet}`, 110 + i, [`${core}:${5 + i}`]), shared: 1 + i });
  });
  return design;
}

/** Desks behind BPDU guard: a visitor plugs in a switch that wants to be root. */
export function guardedEdge(): Design {
  const draft = new DesignDraft('Village school')
    .vlan(70, 'classrooms', 0)
    .switch('cupboard', mac('b1'), 'core', 320, 60, { priority: 4096 })
    .switch('ground-floor', mac('b2'), 'access', 160, 220, { guardRecovery: 30 })
    .switch('first-floor', mac('b3'), 'access', 480, 220, { guardRecovery: 30 })
    .link(['cupboard', 1], ['ground-floor', 1], 1000, '70')
    .link(['cupboard', 2], ['first-floor', 1], 1000, '70')
    .link(['ground-floor', 2], ['first-floor', 2], 1000, '70')
    .host('server', ['cupboard', 20], 1000, 70, { x: 520, y: 40 })
    .host('desk-4', ['ground-floor', 10], 100, 70, { x: 160, y: 330 })
    .host('desk-9', ['first-floor', 10], 100, 70, { x: 480, y: 330 });
  const { design } = draft;
  for (const port of design.ports) if (port.edge && port.switch !== 'first-floor') port.bpduGuard = true;
  const stranger = (id: string, name: string, port: string) => ({
    id,
    name,
    until: 90,
    events: [
      { id: 'in', at: 5, kind: 'intruder' as const, port, priority: 0 },
      { id: 'out', at: 50, kind: 'unplug' as const, port },
    ],
    probes: [{ from: 'server', to: 'desk-4', vlan: 70 }],
  });
  design.scripts = [
    stranger('guarded', 'a rogue switch at a guarded desk', 'ground-floor:10'),
    stranger('open', 'the same at a desk without guard', 'first-floor:10'),
  ];
  return design;
}
