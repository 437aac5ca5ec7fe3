'use client';
import Button from '@mui/material/Button';
import { useEffect, useMemo } from 'react';
import {
  addMember,
  bundleLinks,
  bundleVerdicts,
  joinable,
  parallelLinks,
  removeMember,
  splitBundles,
  verdictOf,
} from '../../core/bundles';
import type { BundleEdits, BundleVerdict } from '../../core/bundles';
import { bundleById, hostById, linkById, portById, switchById } from '../../core/design';
import type { Bundle, Design } from '../../core/design';
import { newId } from '../cabling/useCabling';
import { useBench, useSession } from '../shell/context';
import { BundleEnd } from './BundleEnd';
import { Distribution } from './Distribution';
import { Members } from './Members';

const WORD = {
  forms: 'forms',
  'too-few': 'down',
  never: 'never forms',
  'one-sided': 'one end only',
  unanswered: 'unanswered',
} as const;

interface Pair {
  readonly near: Bundle;
  readonly far: Bundle | null;
  readonly verdict: BundleVerdict;
  readonly name: string;
}

/** Bundles with the two ends together: each once, from the end that comes first. */
function pairsOf(design: Design): Pair[] {
  const verdicts = new Map(bundleVerdicts(design).map((v) => [v.bundle, v]));
  const done = new Set<string>();
  return design.bundles.flatMap((near) => {
    if (done.has(near.id)) return [];
    const verdict = verdicts.get(near.id)!;
    const partner = verdict.partner?.kind === 'bundle' ? bundleById(design, verdict.partner.id)! : null;
    const mutual = partner && verdicts.get(partner.id)?.partner?.id === near.id;
    done.add(near.id);
    if (mutual) done.add(partner.id);
    const at = switchById(design, near.switch)?.name ?? '';
    const to =
      partner !== null
        ? switchById(design, partner.switch)?.name
        : verdict.partner
          ? hostById(design, verdict.partner.id)?.name
          : 'nobody';
    return [{ near, far: mutual ? partner : null, verdict, name: `${at} = ${to}` }];
  });
}

/** Bundles: two ends facing each other, the members between them, and what becomes of it. */
export function BundlesStage() {
  const { edit, say, view, select, setStageCommands } = useBench();
  const design = useSession((s) => s.design);
  const pairs = useMemo(() => pairsOf(design), [design]);
  const loose = useMemo(() => parallelLinks(design), [design]);
  const picked = view.selection.find((r) => r.kind === 'bundle')?.id;
  const pair = pairs.find((p) => p.near.id === picked || p.far?.id === picked) ?? pairs[0];
  useEffect(() => setStageCommands([]), [setStageCommands]);
  const run = (label: string, result: BundleEdits) => {
    if (!result.ok) say({ text: result.sentence, alarm: true });
    else edit(label, result.edits);
  };
  const bundle = (links: readonly string[]) => {
    const result = bundleLinks(design, links, newId);
    run('Bundle parallel cables', result);
    const [first] = result.ok ? result.edits : [];
    if (first?.type === 'add') select({ kind: 'bundle', id: first.value.id });
  };
  const name = (id: string) => switchById(design, id)?.name;
  return (
    <main className="bundles">
      <nav className="bundle-list" aria-label="Bundles">
        <h2>Bundles</h2>
        {pairs.length === 0 && (
          <p className="quiet">No bundle yet. Two or more cables between the same two switches can become one.</p>
        )}
        {pairs.map((p) => (
          <button
            key={p.near.id}
            className="plain bundle-row"
            aria-current={p === pair || undefined}
            onClick={() => select({ kind: 'bundle', id: p.near.id })}
          >
            <b>{p.name}</b>
            <span className={p.verdict.outcome === 'forms' ? 'quiet' : 'alarm'}>
              {WORD[p.verdict.outcome]} · {p.verdict.members.filter((m) => m.state === 'active').length} of{' '}
              {p.verdict.members.length} carry
            </span>
          </button>
        ))}
        {loose.length > 0 && <h3>Parallel, not bundled</h3>}
        {loose.map(({ a, b, links }) => (
          <div key={`${a} ${b}`} className="bundle-loose">
            <span>
              {name(a)} – {name(b)} <small className="quiet">{links.length} cables</small>
            </span>
            <Button onClick={() => bundle(links)}>Bundle</Button>
          </div>
        ))}
      </nav>
      {pair && (
        <section className="bundle-sheet" aria-label={`Bundle ${pair.name}`}>
          <header>
            <h2>
              {pair.name}:{' '}
              <span className={pair.verdict.outcome === 'forms' ? undefined : 'alarm'}>
                {WORD[pair.verdict.outcome]}
              </span>
            </h2>
            <span className="grow" />
            {pair.far &&
              joinable(design, pair.near, pair.far).map((link) => (
                <Button key={link} onClick={() => run('Add a member', addMember(design, pair.near, pair.far!, link))}>
                  Add {cableName(design, link, pair.near)}
                </Button>
              ))}
            <Button
              onClick={() =>
                edit(`Split ${pair.name}`, splitBundles([pair.near.id, ...(pair.far ? [pair.far.id] : [])]))
              }
            >
              Split
            </Button>
          </header>
          <p className={pair.verdict.outcome === 'forms' ? 'sentence' : 'sentence wrong'}>{pair.verdict.sentence}</p>
          <div className="bundle-ends">
            <BundleEnd bundle={pair.near} />
            {pair.far ? (
              <BundleEnd bundle={pair.far} />
            ) : (
              <p className="quiet">
                {pair.verdict.partner?.kind === 'host'
                  ? 'The other end is a host.'
                  : 'The other end has no bundle that leads back here.'}
              </p>
            )}
          </div>
          <Members
            near={pair.near}
            far={pair.far}
            verdict={pair.verdict}
            onRemove={(port) =>
              edit(
                `Take ${portById(design, port)?.name} out of ${pair.name}`,
                removeMember(design, pair.near, pair.far, port),
              )
            }
          />
          <Distribution bundle={pair.near} verdict={pair.verdict} />
          {pair.far && <Distribution bundle={pair.far} verdict={verdictOf(design, pair.far.id)!} />}
        </section>
      )}
    </main>
  );
}

/** `port 9`, of the cable's end at a bundle's switch. */
function cableName(design: Design, linkId: string, near: Bundle): string {
  const link = linkById(design, linkId)!;
  const end = [link.a, link.b]
    .flatMap((e) => ('port' in e ? [portById(design, e.port)!] : []))
    .find((p) => p.switch === near.switch);
  return `port ${end?.name ?? ''}`;
}
