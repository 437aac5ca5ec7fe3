/** What makes a failure interrupt for less: rapid modes, full duplex, shorter timers. */
import { isClassicMode, modeOf, setField, timersFit, timersOf } from '../../design';
import type { Design, Edit, Mode } from '../../design';
import { TIMERS, timersForDiameter } from '../../standard';
import { rootsOf } from '../../trees';
import type { SolvedDesign } from '../../trees';
import type { Failure } from '../sweep';
import { step } from './step';
import type { Step } from './step';

const RAPID: Partial<Record<Mode, Mode>> = { stp: 'rstp', 'per-vlan-stp': 'per-vlan-rstp' };

/** Every classic switch made rapid. */
function rapidEdits(design: Design): Edit[] {
  const rapid = RAPID[design.mode];
  const own = design.switches.flatMap((s) => {
    const mode = s.protocol && RAPID[s.protocol];
    if (!mode) return [];
    return [setField('switch', s.id, 'protocol', mode === (rapid ?? design.mode) ? null : mode)];
  });
  return [...(rapid ? [{ type: 'settings', field: 'mode', value: rapid } as const] : []), ...own];
}

/** Ports between switches that are set so that they cannot agree quickly. */
function duplexEdits(design: Design): Edit[] {
  const between = new Set(design.links.flatMap((l) => ('port' in l.a && 'port' in l.b ? [l.a.port, l.b.port] : [])));
  return design.ports.flatMap((p) => {
    if (!between.has(p.id)) return [];
    return [
      ...(p.duplex === 'half' ? [setField('port', p.id, 'duplex', null)] : []),
      ...(p.linkType === 'shared' ? [setField('port', p.id, 'linkType', null)] : []),
    ];
  });
}

/** Shorter timers at every switch that is root today or after a failure: a hello of a second, and what the longest path asks for. */
function timerEdits(solved: SolvedDesign, failures: readonly Failure[], hello: boolean): Edit[] {
  const { design } = solved.topology;
  const roots = new Set([
    ...solved.trees.flatMap((of) => rootsOf(of).map((b) => design.switches[b]!.id)),
    ...failures.flatMap((f) => f.roots.flatMap((r) => r.after ?? [])),
  ]);
  const links = Math.max(1, ...failures.map((f) => f.longestPath));
  const row = timersForDiameter(links + 1, TIMERS.helloTime.min);
  const wanted = { helloTime: row.helloTime, maxAge: Math.ceil(row.maxAge), forwardDelay: Math.ceil(row.forwardDelay) };
  return design.switches.flatMap((s) => {
    const now = timersOf(s);
    const next = hello ? { ...now, helloTime: wanted.helloTime } : wanted;
    if (!roots.has(s.id) || !timersFit(next) || !row.legal) return [];
    return (['helloTime', 'maxAge', 'forwardDelay'] as const).flatMap((field) =>
      next[field] < now[field] ? [setField('switch', s.id, field, next[field])] : [],
    );
  });
}

/** Settings that shorten an outage which has an end. */
export function shorteningSteps(solved: SolvedDesign, failure: Failure, failures: readonly Failure[]): Step[] {
  const { design } = solved.topology;
  const isClassic = design.switches.some((s) => isClassicMode(modeOf(design, s)));
  return [
    ...(isClassic ? step('mode', rapidEdits(design)) : []),
    ...step('duplex', duplexEdits(design)),
    ...(failure.outage.kind === 'hellos' ? step('timers', timerEdits(solved, failures, true)) : []),
    ...step('timers', timerEdits(solved, failures, false)),
  ];
}
