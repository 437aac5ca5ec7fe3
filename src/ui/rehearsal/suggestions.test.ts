import { asMeant } from '../../demo/brackwater';
import { applyEdits, eventSchema } from '../../core/design';
import type { Edit, ScriptEvent } from '../../core/design';
import { eventWords } from '../../core/simulation';
import type { Ref } from '../session/view';
import { suggestions, timeOfNext } from './suggestions';

const design = asMeant();
const TREE = { id: 'vlan-110', vlan: 110, instance: null } as never;
const offers = (...selection: Ref[]) => suggestions(design, selection, TREE, null);
const named = (name: string, ...selection: Ref[]) =>
  ({ id: 'e', at: 7, ...offers(...selection).find((o) => o.name === name)!.event }) as ScriptEvent;
const LINK: Ref = { kind: 'link', id: 'quay-a:3--ticket-hall:1' };

describe('what can happen to what is selected', () => {
  test.each<[string, Ref[]]>([
    ['nothing', []],
    ['a link', [LINK]],
    ['a switch', [{ kind: 'switch', id: 'gate' }]],
    ['a port with a cable', [{ kind: 'port', id: 'quay-a:3' }]],
    ['an edge port', [{ kind: 'port', id: 'ticket-hall:10' }]],
    ['a bundle', [{ kind: 'bundle', id: 'quay-b:lag102' }]],
  ])('every offer for %s is a legal event that can be said in words', (_, selection) => {
    const all = offers(...selection);
    expect(all.length).toBeGreaterThan(0);
    for (const { event } of all) {
      const read = eventSchema.parse({ id: 'e', at: 7, ...event });
      expect(eventWords(design, read)).not.toMatch(/undefined/);
    }
  });
  test('a hub and an intruder are offered where an end device is, not on a link between switches', () => {
    const names = (id: string) => offers({ kind: 'port', id }).map((o) => o.name);
    expect(names('ticket-hall:10')).toContain('Plug in a rogue switch');
    expect(names('quay-a:3')).not.toContain('Plug in a rogue switch');
  });
  test('a priority is set for the tree in view alone', () => {
    const event = named('Set its priority', { kind: 'switch', id: 'gate' });
    const applied = applyEdits(design, (event as { edits: unknown[] }).edits as Edit[]);
    expect(applied.ok && applied.design.switches.find((s) => s.id === 'gate')!.vlanPriority?.['110']).toBe(0);
  });
  test('two free ports can be cabled', () => {
    const free = { id: 'gate:9', switch: 'gate', name: '9', number: 9, speed: 1000 };
    const more = { ...design, ports: [...design.ports, free, { ...free, id: 'gate:8', name: '8', number: 8 }] };
    const found = suggestions(
      more,
      [
        { kind: 'port', id: 'gate:9' },
        { kind: 'port', id: 'gate:8' },
      ],
      TREE,
      null,
    );
    expect(found[0]!.event).toMatchObject({ kind: 'cable', a: 'gate:9', b: 'gate:8' });
  });
  test('parallel cables can be bundled while it runs, at both ends or at one alone', () => {
    const plain: typeof design = { ...design, bundles: [] };
    const cables: Ref[] = ['quay-b:8--cold-store:1', 'quay-b:9--cold-store:2'].map((id) => ({ kind: 'link', id }));
    const found = suggestions(plain, cables, TREE, null);
    expect(found.slice(0, 3).map((o) => o.name)).toEqual([
      'Bundle them',
      'Bundle them at quay-b only, static',
      'Bundle them at cold-store only, static',
    ]);
    for (const { event } of found.slice(0, 3)) {
      const read = eventSchema.parse({ id: 'e', at: 7, ...event });
      expect(applyEdits(plain, (read as { edits: unknown[] }).edits as Edit[]).ok).toBe(true);
    }
    const apart: Ref[] = [LINK, { kind: 'link', id: 'quay-b:9--cold-store:2' }];
    expect(suggestions(plain, apart, TREE, null).map((o) => o.name)).toEqual(['Power off the root of VLAN 110']);
  });
  test('a change that is tried out can be carried out while it runs', () => {
    const edits: Edit[] = [{ type: 'set', kind: 'switch', id: 'gate', field: 'priority', value: 0 }];
    const [first] = suggestions(design, [], TREE, { label: 'Proposal 1', edits });
    expect(first!.event).toMatchObject({ kind: 'set', label: 'Proposal 1', edits });
  });
});

test('an event is put at the moment in view, and never at the very start, where nothing stands yet', () => {
  const at = (at: number) => ({ id: 'e', at, kind: 'link-up', link: 'x' }) as ScriptEvent;
  expect(timeOfNext({ events: [], until: 30 }, 7_250_000)).toBe(7.25);
  expect(timeOfNext({ events: [], until: 30 }, 0)).toBe(5);
  expect(timeOfNext({ events: [at(5)], until: 30 }, 0)).toBe(10);
  expect(timeOfNext({ events: [at(28)], until: 30 }, 0)).toBe(29);
  expect(timeOfNext({ events: [], until: 4 }, 0)).toBe(2);
});
