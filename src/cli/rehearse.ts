import { writeFile } from 'node:fs/promises';
import { everNamed } from '../core/design';
import type { Design, Script } from '../core/design';
import { checkGoals, goalSentence } from '../core/goals';
import {
  MOST_PACKETS,
  alikeAt,
  asItStands,
  floodsOf,
  gapsOf,
  loopEffect,
  packetCount,
  pcapng,
  portWords,
  storyOf,
  vlansOfTree,
} from '../core/trace';
import { rehearse } from '../core/simulation';
import type { FrameFile, Trace } from '../core/trace';
import { solveDesign } from '../core/trees';
import { complain, readDesignFile } from './files';
import { scriptCalled } from './script-file';
import { SECOND } from '../core/standard';

export interface RehearseOptions {
  readonly script?: string;
  readonly json?: boolean;
  readonly pcapng?: string;
  readonly oneForAlike?: boolean;
  readonly until?: string;
}

/** Writes the control frames; false where the file would be too large. */
async function writeFrames(design: Design, trace: Trace, options: RehearseOptions): Promise<boolean> {
  const file: FrameFile = {
    names: (port) => portWords(design, port),
    alike: alikeAt(design, trace),
    of: options.oneForAlike ? 'one-for-alike' : 'every-vlan',
  };
  const count = packetCount(trace.frames, file);
  if (count > MOST_PACKETS) {
    complain(
      `${options.pcapng} would hold ${count} frames, more than ${MOST_PACKETS}: write one for all VLANs that go alike (--one-for-alike), or rehearse shorter (--until).`,
    );
    return false;
  }
  await writeFile(options.pcapng!, pcapng(trace.frames, file));
  return true;
}

/** `60s`, `1.5`, `2m`: seconds; null for anything else. */
export function readSeconds(text: string): number | null {
  const match = /^(\d+(?:\.\d+)?)(s|m|h)?$/.exec(text);
  if (!match) return null;
  return Number(match[1]) * { s: 1, m: 60, h: 3600 }[(match[2] ?? 's') as 's' | 'm' | 'h'];
}

/** The script: from a file, else the one of the design that is named so, else the first of the design. */
async function scriptFor(design: Design, wanted: string | undefined): Promise<Script | null> {
  if (wanted !== undefined) return scriptCalled(design, wanted);
  if (design.scripts[0]) return design.scripts[0];
  complain('The design has no script: give one with --script FILE.json.');
  return null;
}

/** What becomes of the goals once the network has settled as the events leave it. */
function goalsAfter(design: Design, script: Script, trace: Trace) {
  if (design.goals.length === 0) return [];
  const stands = asItStands(design, script, trace, trace.until).design;
  return checkGoals(solveDesign(stands)).map(({ goal, state, reason }) => ({
    goal: goalSentence(stands, goal),
    state,
    reason,
  }));
}

/** When pairs of hosts were without contact, and when frames for one were flooded. */
function ofPairs({ contacts }: Trace) {
  const lasting = ({ from, to, vlan }: Trace['contacts'][number], of: { from: number; to: number | null }) => ({
    from,
    to,
    vlan,
    at: of.from / SECOND,
    seconds: of.to === null ? null : (of.to - of.from) / SECOND,
  });
  return {
    gaps: contacts.flatMap((lane) => gapsOf(lane).map((g) => lasting(lane, g))),
    floods: contacts.flatMap((lane) =>
      floodsOf(lane).map((f) => ({ ...lasting(lane, f), switches: f.switches, ports: f.ports })),
    ),
  };
}

function summary(design: Design, trace: Trace) {
  return {
    until: trace.until / SECOND,
    ended: trace.ended,
    sentence: trace.sentence,
    bpdus: trace.bpdus,
    roles: trace.ports.map(({ tree, port, spans }) => ({
      tree,
      vlans: vlansOfTree(trace, tree, { design, port }),
      port: portWords(design, port),
      role: spans.at(-1)?.role,
      state: spans.at(-1)?.state,
    })),
    timelines: trace.ports
      .filter((l) => l.spans.length > 1)
      .map(({ tree, port, spans }) => ({
        tree,
        vlans: vlansOfTree(trace, tree, { design, port }),
        port: portWords(design, port),
        spans: spans.map((s) => ({ at: s.at / SECOND, role: s.role, state: s.state })),
      })),
    roots: trace.roots.map(({ tree, spans }) => ({
      tree,
      vlans: vlansOfTree(trace, tree),
      spans: spans.map((s) => ({ at: s.at / SECOND, roots: s.roots })),
    })),
    ...ofPairs(trace),
    loops: trace.loops.map((l) => {
      const { rate, full, copies, moves, broadcasts, fullAfter } = loopEffect(l);
      return {
        vlans: trace.classes[l.vlan] ?? [l.vlan],
        at: l.from / SECOND,
        until: l.to === null ? null : l.to / SECOND,
        ports: l.ports.map((p) => portWords(design, p)),
        rate,
        full,
        copies,
        moves,
        broadcasts,
        fullAfter,
      };
    }),
    reach: trace.reach.map(({ vlan, spans }) => ({
      vlans: trace.classes[vlan] ?? [vlan],
      spans: spans.map((s) => ({ at: s.at / SECOND, apart: s.apart })),
    })),
    story: storyOf(design, trace).map((l) => ({ at: l.at / SECOND, text: l.text })),
  };
}

/** Rehearses a script over a design; status 1 when a pair is unreachable at the end, or the run was stopped. */
export async function rehearseDesign(file: string, options: RehearseOptions): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 2;
  const script = await scriptFor(design, options.script);
  if (!script) return 2;
  const until = options.until === undefined ? script.until : readSeconds(options.until);
  if (until === null || until > 36_000) {
    complain(`--until ${options.until}: a time like 60s, 2m or 1h is asked for, at most 10h.`);
    return 2;
  }
  const late = script.events.find((e) => e.at > until);
  if (late) complain(`The event at ${late.at} s is beyond the end at ${until} s: it never happens.`);
  const trace = rehearse(design, { ...script, until });
  const named = everNamed(design, script);
  const found = summary(named, trace);
  const goals = goalsAfter(design, script, trace);
  if (options.json) process.stdout.write(`${JSON.stringify({ ...found, goals })}\n`);
  else {
    for (const line of found.story) process.stdout.write(`${line.at.toFixed(3).padStart(9)} s  ${line.text}\n`);
    for (const { goal, state, reason } of goals)
      if (state === 'broken') process.stdout.write(`Broken at the end: ${goal} ${reason}\n`);
    if (trace.sentence) process.stdout.write(`${trace.sentence}\n`);
  }
  if (options.pcapng !== undefined && !(await writeFrames(named, trace, options))) return 2;
  return trace.ended !== 'end' || found.gaps.some((g) => g.seconds === null) ? 1 : 0;
}
