/** Bundles as the stage lists them: both ends together, each of one switch or of both switches of a pair. */
import { bundleVerdicts, sharedWith } from '../../core/network';
import type { BundleVerdict } from '../../core/network';
import { bundleById, hostById, switchById } from '../../core/design';
import type { Bundle, Design } from '../../core/design';

export interface BundleGroup {
  /** One bundle, or one of each switch of a pair. */
  readonly near: readonly Bundle[];
  /** Empty where the far end is a host or has no bundle. */
  readonly far: readonly Bundle[];
  readonly verdict: BundleVerdict;
  readonly farVerdict: BundleVerdict | null;
  readonly name: string;
}

const together = (design: Design, bundle: Bundle): Bundle[] => {
  const other = sharedWith(design, bundle);
  return other ? [bundle, other] : [bundle];
};

/** Bundles with their two ends together: each once, from the end that comes first. */
export function bundleGroups(design: Design): BundleGroup[] {
  const verdicts = new Map(bundleVerdicts(design).map((v) => [v.bundle, v]));
  const whole = (end: readonly Bundle[]): BundleVerdict => ({
    ...verdicts.get(end[0]!.id)!,
    members: end.flatMap((b) => verdicts.get(b.id)!.members),
  });
  const names = (end: readonly Bundle[]) => end.map((b) => switchById(design, b.switch)?.name ?? '').join(' + ');
  const done = new Set<string>();
  return design.bundles.flatMap((first) => {
    if (done.has(first.id)) return [];
    const near = together(design, first);
    const verdict = whole(near);
    const partner = verdict.partner?.kind === 'bundle' ? bundleById(design, verdict.partner.id)! : null;
    const back = partner ? verdicts.get(partner.id)?.partner?.id : undefined;
    const far = partner && near.some((b) => b.id === back) ? together(design, partner) : [];
    for (const b of [...near, ...far]) done.add(b.id);
    const to = partner
      ? names(far.length > 0 ? far : [partner])
      : verdict.partner
        ? (hostById(design, verdict.partner.id)?.name ?? '')
        : 'no partner';
    return [{ near, far, verdict, farVerdict: far.length > 0 ? whole(far) : null, name: `${names(near)} = ${to}` }];
  });
}

const SEVERITY: Record<BundleVerdict['outcome'], number> = {
  'one-sided': 40,
  never: 30,
  unanswered: 30,
  'too-few': 20,
  forms: 0,
};

const isWrong = (m: BundleVerdict['members'][number]): boolean =>
  m.miscabled || m.state === 'suspended' || m.state === 'down' || m.state === 'individual';

/** How much is wrong with a bundle: what is up at one end alone is worst, then what is down, then members that do not carry. */
export const troubleOf = ({ verdict }: BundleGroup): number =>
  SEVERITY[verdict.outcome] + verdict.members.filter(isWrong).length;

/** The first thing that is wrong with a bundle; null where nothing is. */
export function troubleWords({ verdict }: BundleGroup): string | null {
  if (verdict.outcome !== 'forms') return verdict.sentence;
  return verdict.members.find(isWrong)?.sentence ?? null;
}
