/** VLANs painted along cables, and where they are. */
import fc from 'fast-check';
import { after } from '../../../tests/support/edits';
import { networks } from '../../../tests/support/networks';
import { asCabled, asMeant } from '../../demo/brackwater';
import { removeAll } from '../design';
import type { Design } from '../design';
import {
  disagreement,
  disagreementSentence,
  paintVlan,
  portsOnWires,
  presence,
  renumberVlan,
  setNative,
  setVlans,
  tagging,
} from './vlans';

const demo = asCabled();
const named = (design: Design, name: string) => design.switches.find((s) => s.name === name)!;

describe('VLANs on cables', () => {
  test('the two ends of a gate uplink disagree in the demo as cabled, and agree as meant', () => {
    const link = demo.links.find((l) => l.id === 'quay-b:4--gate:2')!;
    const found = disagreement(demo, link)!;
    expect(disagreementSentence(found, ['quay-b', 'gate'])).toBe('only quay-b carries VLAN 130');
    const meant = asMeant();
    expect(meant.links.filter((l) => disagreement(meant, l))).toEqual([]);
  });
  test('painting puts a VLAN on both ends, taking it off brings the lists back', () => {
    const ports = portsOnWires(demo, ['quay-b:4--gate:2']);
    const painted = after(demo, paintVlan(demo, ports, 130, true));
    expect(
      disagreement(
        painted,
        painted.links.find((l) => l.id === 'quay-b:4--gate:2')!,
      ),
    ).toBeNull();
    const off = after(painted, paintVlan(painted, ports, 130, false));
    expect(tagging(off, ports[0]!, 130)).toBe('not carried');
    expect(after(off, paintVlan(off, ports, 130, true))).toEqual(painted);
  });
  test('a member of a bundle is painted on the bundle, once', () => {
    const ports = portsOnWires(demo, ['core-east:1--core-west:1', 'core-east:2--core-west:2']);
    const edits = paintVlan(demo, ports, 110, false);
    expect(edits.map((e) => e.type === 'set' && e.kind)).toEqual(['bundle', 'bundle']);
  });
  test('taking a VLAN off a port that carries all leaves the others of the design', () => {
    const all = after(demo, setVlans(demo, 'gate:1', 'all'));
    const off = after(all, paintVlan(all, ['gate:1'], 110, false));
    expect(off.ports.find((p) => p.id === 'gate:1')!.vlans).toBe('120,130,140,150,160,199');
  });
  test('an untagged VLAN is carried from then on, and goes with the VLAN', () => {
    const set = after(demo, setNative(demo, 'workshop:1', 150));
    expect(tagging(set, 'workshop:1', 150)).toBe('untagged');
    const off = after(set, paintVlan(set, ['workshop:1'], 150, false));
    expect(off.ports.find((p) => p.id === 'workshop:1')!.native).toBeUndefined();
  });
  test('a host is unreachable when the only link that carries its VLAN is missing', () => {
    expect(presence(demo, 160).cutOff.size).toBe(0);
    const cut = after(demo, removeAll(demo, [{ kind: 'link', id: 'quay-b:8--cold-store:1' }]));
    const found = presence(cut, 160);
    expect([...found.cutOff]).toEqual(['freezer-monitor']);
    expect(found.parts.at(-1)).toEqual(['cold-store']);
  });
  test('a VLAN that ends where the two ends do not agree is shown as half on that link', () => {
    expect([...presence(demo, 130).half]).toEqual(['quay-b:4--gate:2']);
    expect(presence(demo, 140).part.has('workshop')).toBe(false);
  });
  test('a VLAN with another number takes its lists, hosts and tree settings along', () => {
    const design = after(demo, renumberVlan(demo, 110, 210));
    expect(JSON.stringify(design.ports)).not.toMatch(/\b110\b/);
    expect(design.hosts[0]!.vlan).toBe(210);
    expect(named(design, 'core-east').vlanPriority).toMatchObject({ 210: 4096 });
    expect(after(design, renumberVlan(design, 210, 110)).ports.map((p) => p.vlans)).toEqual(
      demo.ports.map((p) => p.vlans),
    );
  });
  test('parts of a VLAN are those that its links and segments hold together, on any network', () => {
    fc.assert(
      fc.property(networks, (design) => {
        const { part } = presence(design, 1);
        const has = (id: string) => part.has(id);
        for (const { a, b, down } of design.links) {
          if (!('port' in a) || !('port' in b) || down) continue;
          const [p, q] = [a, b].map((e) => design.ports.find((x) => x.id === e.port)!);
          const carried = presence(design, 1).links.has(design.links.find((l) => l.a === a)!.id);
          if (carried && !p!.down && !q!.down && has(p!.switch) && has(q!.switch))
            expect(part.get(p!.switch)).toBe(part.get(q!.switch));
        }
      }),
      { numRuns: 60 },
    );
  });
});
