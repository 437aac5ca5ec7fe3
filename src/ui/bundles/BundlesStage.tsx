'use client';
import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import { bundleLinks, parallelLinks, switchById } from '../../core/design';
import { OUTCOME_WORDS, pairReport } from '../../core/network';
import { newId } from '../session/new-id';
import { useBench, useSession } from '../session/context';
import { BundleSheet } from './BundleSheet';
import type { BundlePage } from './BundleSheet';
import { useRowMarks } from '../controls/useRowMarks';
import { bundleGroups, troubleOf, troubleWords } from './groups';
import type { BundleGroup } from './groups';
import { LooseSheet } from './LooseSheet';
import { MakePair } from './MakePair';
import { PairSheet } from './PairSheet';
import { useBundleEdits } from './useBundleEdits';
import { count } from '../../core/standard';
import { Term } from '../controls/Term';
import styles from './BundlesStage.module.css';

type Picked = { readonly pair: string } | { readonly loose: string } | null;

/** Bundles: two ends facing each other, the members between them, and what becomes of it. */
export function BundlesStage() {
  const { view, select, setStageCommands } = useBench();
  const design = useSession((s) => s.design);
  const run = useBundleEdits();
  const groups = useMemo(() => bundleGroups(design).sort((a, b) => troubleOf(b) - troubleOf(a)), [design]);
  const loose = useMemo(() => parallelLinks(design), [design]);
  const [picked, setPicked] = useState<Picked>(null);
  const [page, setPage] = useState<BundlePage>('What if');
  const wanted = view.selection.find((r) => r.kind === 'bundle')?.id;
  const pair = picked && 'pair' in picked ? design.pairs.find((p) => p.id === picked.pair) : undefined;
  const parallel = picked && 'loose' in picked ? loose.find((l) => `${l.a} ${l.b}` === picked.loose) : undefined;
  const group = groups.find((g) => [...g.near, ...g.far].some((b) => b.id === wanted)) ?? groups[0];
  useEffect(() => setStageCommands([]), [setStageCommands]);
  const show = (id: string) => {
    setPicked(null);
    select({ kind: 'bundle', id });
  };
  const bundle = (links: readonly string[]) => {
    const result = bundleLinks(design, links, newId);
    run('Bundle parallel cables', result);
    const [first] = result.ok ? result.edits : [];
    if (first?.type === 'add') show(first.value.id);
  };
  const current = pair ? { pair: pair.id } : parallel ? { loose: `${parallel.a} ${parallel.b}` } : null;
  return (
    <main className="bundles">
      <nav className={styles.bundleList} aria-label="Bundles">
        <GroupList groups={groups} current={current ? undefined : group} onShow={show} />
        <LooseList loose={loose} current={current} onPick={setPicked} onBundle={bundle} />
        <PairList current={current} onPick={setPicked} />
      </nav>
      {pair ? (
        <PairSheet key={pair.id} pair={pair} onGone={() => setPicked(null)} />
      ) : parallel ? (
        <LooseSheet
          key={parallel.links.join()}
          a={parallel.a}
          b={parallel.b}
          links={parallel.links}
          onBundle={bundle}
        />
      ) : group ? (
        <BundleSheet key={group.near[0]!.id} group={group} page={page} onPage={setPage} />
      ) : (
        <section className="bundle-sheet">
          <p className="quiet">
            Select two parallel cables in Cabling or Trees and press J, or press Bundle beside a pair of cables here.
          </p>
        </section>
      )}
    </main>
  );
}

interface GroupsProps {
  readonly groups: readonly BundleGroup[];
  readonly current: BundleGroup | undefined;
  readonly onShow: (id: string) => void;
}

/** Findings that are shown at a bundle; the rest stand in the review. */
const MOST_FOUND = 2;

function GroupList({ groups, current, onShow }: GroupsProps) {
  const marks = useRowMarks();
  const foundAt = ({ near, far }: BundleGroup) =>
    [...new Set([...near, ...far].flatMap((b) => marks.get(`bundle ${b.id}`)?.sentences ?? []))].slice(0, MOST_FOUND);
  return (
    <>
      <h2>Bundles {groups.length > 1 && <small className="quiet">most trouble first</small>}</h2>
      {groups.length === 0 && (
        <p className="quiet">No bundle yet. Two or more cables between the same two switches can become one.</p>
      )}
      {groups.map((g) => (
        <button
          key={g.near[0]!.id}
          className={`plain ${styles.bundleRow}`}
          aria-current={g === current || undefined}
          onClick={() => onShow(g.near[0]!.id)}
        >
          <b>{g.name}</b>
          <span className={g.verdict.outcome === 'forms' ? 'quiet' : 'alarm'}>
            {OUTCOME_WORDS[g.verdict.outcome]} · {g.verdict.members.filter((m) => m.state === 'active').length} of{' '}
            {g.verdict.members.length} active
          </span>
          {troubleWords(g) && <small className="quiet">{troubleWords(g)}</small>}
          {foundAt(g).map((sentence) => (
            <small key={sentence} className={styles.found} title={sentence}>
              {sentence}
            </small>
          ))}
        </button>
      ))}
    </>
  );
}

interface PickProps {
  readonly current: Picked;
  readonly onPick: (picked: Picked) => void;
}

interface LooseProps extends PickProps {
  readonly loose: ReturnType<typeof parallelLinks>;
  readonly onBundle: (links: readonly string[]) => void;
}

/** Cables between the same two switches that are in no bundle. */
function LooseList({ loose, current, onPick, onBundle }: LooseProps) {
  const design = useSession((s) => s.design);
  const name = (id: string) => switchById(design, id)?.name;
  if (loose.length === 0) return null;
  return (
    <>
      <h3>Parallel, not bundled</h3>
      {loose.map(({ a, b, links }) => (
        <div key={`${a} ${b}`} className={styles.bundleLoose}>
          <button
            className="plain"
            aria-current={(current && 'loose' in current && current.loose === `${a} ${b}`) || undefined}
            onClick={() => onPick({ loose: `${a} ${b}` })}
          >
            {name(a)} – {name(b)} <small className="quiet">{count(links.length, 'cable')}</small>
          </button>
          <Button onClick={() => onBundle(links)}>Bundle</Button>
        </div>
      ))}
    </>
  );
}

function PairList({ current, onPick }: PickProps) {
  const design = useSession((s) => s.design);
  const name = (id: string) => switchById(design, id)?.name;
  return (
    <>
      <h3>
        <Term id="pair">Multi-chassis pairs</Term>
      </h3>
      {design.pairs.map((p) => {
        const { state, checks } = pairReport(design, p);
        const wrong = checks.filter((c) => !c.ok).length + (state === 'one' ? 0 : 1);
        return (
          <button
            key={p.id}
            className={`plain ${styles.bundleRow}`}
            aria-current={(current && 'pair' in current && current.pair === p.id) || undefined}
            onClick={() => onPick({ pair: p.id })}
          >
            <b>{p.switches.map(name).join(' + ')}</b>
            <span className={wrong > 0 ? 'alarm' : 'quiet'}>
              domain {p.domain} · {wrong === 0 ? 'consistent' : count(wrong, 'fault', 'faults')}
            </span>
          </button>
        );
      })}
      <MakePair onMade={(id) => onPick({ pair: id })} />
    </>
  );
}
