/** A review by names, as programs read it. */
import { bundleById, linkAt, portById, switchById } from '../design';
import type { Design } from '../design';
import { elementName } from './elements';
import type { Element, ElementName } from './elements';
import type { MissingCable } from './missing-cables';
import type { Finding } from './review';
import type { Failure } from './sweep';

const nameOf = (design: Design, id: string | null): string | null =>
  id === null ? null : (switchById(design, id)?.name ?? id);

/** The link or bundle that a logical port sends over. */
function elementAt(design: Design, port: string): ElementName | null {
  const bundle = bundleById(design, port);
  const link = bundle ? undefined : linkAt(design, port);
  const id = bundle?.id ?? link?.id;
  if (id === undefined) return null;
  const element: Element = { kind: bundle ? 'bundle' : 'link', id, links: [], segments: [], switches: [] };
  return elementName(design, element);
}

/** One failure of a review. */
export function failureJson(design: Design, failure: Failure) {
  const { separates, outage } = failure;
  return {
    elements: failure.elements.map((e) => elementName(design, e)),
    separates: {
      switches: separates.switches.map((id) => nameOf(design, id)),
      hosts: separates.hosts.map((id) => design.hosts.find((h) => h.id === id)!.name),
      vlans: separates.vlans,
    },
    avoidable: separates.avoidable,
    roots: failure.roots.map(({ tree, before, after }) => ({
      tree,
      before: nameOf(design, before),
      after: nameOf(design, after),
    })),
    goalsBroken: failure.goalsBroken,
    overloaded: failure.overloaded.map(({ port, percent }) => ({
      link: elementAt(design, port),
      percent: Math.round(percent),
    })),
    fullest: failure.fullest === null ? null : Math.round(failure.fullest),
    moved: failure.moved,
    longestPath: failure.longestPath,
    outage,
  };
}

const cableEnd = (design: Design, { switch: at, port }: MissingCable['a']) => ({
  switch: nameOf(design, at),
  port: port === null ? null : (portById(design, port)?.name ?? port),
});

const cableJson = (design: Design, { a, b }: MissingCable) => ({
  a: cableEnd(design, a),
  b: cableEnd(design, b),
});

/** One finding of a review. */
export const findingJson = ({ code, severity, subjects, sentence, accepted, fix }: Finding) => ({
  code,
  severity,
  subjects: subjects.map(({ kind, name }) => ({ kind, name })),
  sentence,
  accepted,
  fix: fix ? { label: fix.label, edits: fix.edits } : null,
});

/** A whole review: findings, failures worst first, missing cables. */
export function reviewJson(
  design: Design,
  findings: readonly Finding[],
  failures: readonly Failure[],
  missing: { readonly link: readonly MissingCable[]; readonly switch: readonly MissingCable[] },
) {
  return {
    findings: findings.map(findingJson),
    failures: failures.map((f) => failureJson(design, f)),
    missingCables: {
      link: missing.link.map((m) => cableJson(design, m)),
      switch: missing.switch.map((m) => cableJson(design, m)),
    },
  };
}
