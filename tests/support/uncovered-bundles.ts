/** Bundles whose rest the solver does not cover. */
import { bundleById } from '@/core/design';
import type { Design } from '@/core/design';
import { bundleVerdicts, lacpIdentity } from '@/core/network';

/** One end, or a member, forwards without the other: the two engines see different things there on purpose. */
export const oneSided = (design: Design): boolean =>
  bundleVerdicts(design).some(
    (v) =>
      v.outcome === 'one-sided' ||
      (bundleById(design, v.bundle)!.kind === 'static' && v.members.some((m) => m.miscabled && m.state === 'active')),
  );

/** Two bundles with one system and key are one to their partner, which is not modelled. */
export const haveTwins = (design: Design): boolean => {
  const identities = design.bundles.map((b) => lacpIdentity(design, b));
  return new Set(identities).size < identities.length;
};
