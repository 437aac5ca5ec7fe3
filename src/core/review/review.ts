/** A design reviewed: findings of all rules with what was accepted, failures, and cables that are missing. */
import type { Acceptance } from '../design';
import type { SolvedDesign } from '../trees';
import { RULES } from './findings';
import { Context, SEVERITIES } from './findings/rule';
import type { Found, Severity } from './findings/rule';

export interface Finding extends Found {
  readonly code: string;
  readonly severity: Severity;
  /** Names the finding among all of a design. */
  readonly key: string;
  /** The reason for which it is accepted; null while it is not. */
  readonly accepted: string | null;
}

const subjectIds = ({ subjects }: Found): string[] => subjects.map((s) => `${s.kind} ${s.id}`);

/** Whether an acceptance is of this finding as it is now: what it says has not changed. */
const accepts = ({ code, subjects, said }: Acceptance, own: string, found: Found): boolean =>
  code === own && said === found.sentence && subjects.join('\n') === subjectIds(found).join('\n');

/** All findings of a solved design, faults first, then in the order of the rules. */
export function findingsOf(solved: SolvedDesign): Finding[] {
  const context = new Context(solved);
  const { accepted } = context.design;
  const all = RULES.flatMap(({ code, severity, find }) =>
    find(context).map((found): Finding => ({
      ...found,
      code,
      severity,
      key: `${code} ${subjectIds(found).join()}`,
      accepted: accepted.find((a) => accepts(a, code, found))?.reason ?? null,
    })),
  );
  return SEVERITIES.flatMap((severity) => all.filter((f) => f.severity === severity));
}

/** What is kept of a finding that is accepted. */
export const acceptanceOf = (finding: Finding, id: string, reason: string): Acceptance => ({
  id,
  code: finding.code,
  subjects: subjectIds(finding),
  said: finding.sentence,
  reason,
});
