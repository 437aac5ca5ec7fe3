import { asCabled } from '../../demo/brackwater';
import { verdictOf } from '../network';
import { faceBundle, freePorts, replugMember } from './bundle-ends';
import type { BundleEdits } from './bundling';
import { applyEdits } from './edits';
import { bundleById, bundlesOf, linkAt, portById } from './look-ups';
import type { Bundle } from './bundle-schema';
import type { Design } from './schema';

const made = (design: Design, result: BundleEdits): Design => {
  if (!result.ok) throw new Error(result.sentence);
  const applied = applyEdits(design, result.edits);
  if (!applied.ok) throw new Error(applied.faults[0]!.sentence);
  return applied.design;
};

/** A bundle of the demo between two switches, and the one that faces it. */
function ends(design: Design): readonly [Bundle, Bundle] {
  for (const bundle of design.bundles) {
    const partner = verdictOf(design, bundle.id)!.partner;
    if (partner?.kind === 'bundle') return [bundle, bundleById(design, partner.id)!];
  }
  throw new Error('no bundle between switches');
}

test('the end that faces a bundle is made of its ports, with the settings of the bundle', () => {
  const whole = asCabled();
  const [near, far] = ends(whole);
  const one = {
    ...whole,
    bundles: whole.bundles
      .filter((b) => b.id !== far.id)
      .map((b) => (b.id === near.id ? { ...b, kind: 'lacp' as const, timeout: 'short' as const, maxActive: 2 } : b)),
  };
  const own = bundleById(one, near.id)!;
  const after = made(
    one,
    faceBundle(one, own, (prefix) => `${prefix}-new`),
  );
  const face = bundleById(after, 'bundle-new')!;
  expect(face).toMatchObject({ switch: far.switch, kind: 'lacp', timeout: 'short', maxActive: 2 });
  expect([...face.members].sort()).toEqual([...far.members].sort());
  expect(verdictOf(after, own.id)).toMatchObject({ outcome: 'forms', partner: { kind: 'bundle', id: face.id } });
  expect(faceBundle(after, own, String)).toMatchObject({ ok: false });
});

test('a member is put to a free port, which takes its place, its VLANs and its priority', () => {
  const design = asCabled();
  const [near] = ends(design);
  const [from] = near.members as [string, ...string[]];
  const number = 1 + Math.max(...design.ports.map((p) => p.number));
  const spare = { id: 'spare', switch: near.switch, name: 'spare', number, speed: portById(design, from)!.speed };
  const wide = { ...design, ports: [...design.ports, spare] };
  const cable = linkAt(wide, from)!.id;
  const after = made(wide, replugMember(wide, from, 'spare'));
  expect(linkAt(after, 'spare')?.id).toBe(cable);
  expect(linkAt(after, from)).toBeUndefined();
  expect(bundleById(after, near.id)!.members[0]).toBe('spare');
  expect(portById(after, 'spare')!.vlans).toBe(portById(design, from)!.vlans);
  expect(verdictOf(after, near.id)!.outcome).toBe(verdictOf(design, near.id)!.outcome);
  expect(freePorts(after, near.switch).map((p) => p.id)).toContain(from);
});

test('a member is not put to a port that has a cable or is in a bundle', () => {
  const design = asCabled();
  const [near] = ends(design);
  // One of a shared segment is not free either.
  const shared = { ...design, segments: [{ id: 'hub', name: 'hub', ports: ['spare'] }] };
  const spare = { id: 'spare', switch: near.switch, name: 'spare', number: 99, speed: 1000 };
  expect(replugMember({ ...shared, ports: [...design.ports, spare] }, near.members[0]!, 'spare').ok).toBe(false);
  const busy = design.ports.find(
    (p) => p.switch === near.switch && linkAt(design, p.id) && !near.members.includes(p.id),
  )!;
  expect(replugMember(design, near.members[0]!, busy.id)).toMatchObject({
    ok: false,
    sentence: expect.stringContaining(busy.name) as string,
  });
  expect(replugMember(design, near.members[0]!, 'gone')).toMatchObject({ ok: false });
  expect(bundlesOf(design, near.switch).map((b) => b.id)).toContain(near.id);
});
