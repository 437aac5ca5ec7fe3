'use client';
import Button from '@mui/material/Button';
import { Suspense, useRef, useState } from 'react';
import { addMember, joinable, linkById, portById, removeMember, splitBundles } from '../../core/design';
import { verdictOf } from '../../core/network';
import type { Bundle, Design } from '../../core/design';
import { useBench, useSession } from '../session/context';
import type { BundleWhatIf } from '../../core/analysis';
import { BundleDrawing } from './BundleDrawing';
import { BundleEnd } from './BundleEnd';
import { bundleGroups } from './groups';
import { WHAT_IF_WORDS, WhatIf } from './WhatIf';
import { Effects } from './Effects';
import { OUTCOME_WORDS } from '../../core/network';
import type { BundleGroup } from './groups';
import { Members } from './Members';
import { OverTime } from './OverTime';
import { ChangeSteps } from './ChangeSteps';
import { CompareOptions, Distribution } from './charts';
import { useBundleEdits } from './useBundleEdits';
import { OneOf } from '../controls/OneOf';

const PAGES = [
  'What if',
  'Over time',
  'All settings',
  'Distribution',
  'Trees and capacity',
  'Compare options',
  'Change steps',
] as const;
const TABS = PAGES.map((page) => ({ id: page, name: page }));

export type BundlePage = (typeof PAGES)[number];

interface Props {
  readonly group: BundleGroup;
  readonly page: BundlePage;
  readonly onPage: (page: BundlePage) => void;
}

/** One bundle as it is drawn, and page by page what follows from it. */
export function BundleSheet({ group, page, onPage }: Props) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const solved = useSession((s) => s.solved);
  const run = useBundleEdits();
  const [tried, setTried] = useState<BundleWhatIf | null>(null);
  const drawn = tried?.design ?? design;
  const shown = tried ? (bundleGroups(drawn).find((g) => g.near[0]!.id === group.near[0]!.id) ?? group) : group;
  const { near, far, verdict } = group;
  const fits = near.flatMap((a) => far.flatMap((b) => joinable(design, a, b).map((link) => ({ a, b, link }))));
  const forms = verdict.outcome === 'forms';
  const sheet = useRef<HTMLElement>(null);
  const show = (whatIf: BundleWhatIf | null) => {
    setTried(whatIf);
    sheet.current?.scrollTo({ top: 0 });
  };
  const turn = (next: BundlePage) => {
    setTried(null);
    onPage(next);
  };
  return (
    <section ref={sheet} className="bundle-sheet" aria-label={`Bundle ${group.name}`}>
      <header>
        <h2>
          {group.name}: <span className={forms ? undefined : 'alarm'}>{OUTCOME_WORDS[verdict.outcome]}</span>
        </h2>
        <span className="grow" />
        {fits.map(({ a, b, link }) => (
          <Button key={link} onClick={() => run('Add a member', addMember(design, a, b, link))}>
            Add {cableName(design, link, a)}
          </Button>
        ))}
        <Button onClick={() => edit(`Split ${group.name}`, splitBundles([...near, ...far].map((b) => b.id)))}>
          Split
        </Button>
      </header>
      <p className={forms ? 'sentence' : 'sentence wrong'}>{verdict.sentence}</p>
      {tried && (
        <p className="quiet" role="status">
          Previewed: {WHAT_IF_WORDS[tried.id]}. Nothing is changed.
        </p>
      )}
      <BundleDrawing design={drawn} solved={tried?.solved ?? solved} group={shown} fixed={tried !== null} />
      <OneOf className="boards" label="Pages of the bundle" options={TABS} value={page} onPick={turn} />
      {page === 'What if' ? (
        <WhatIf group={group} shown={tried?.id ?? null} onShow={show} />
      ) : (
        <SheetPage group={group} page={page} />
      )}
    </section>
  );
}

/** The other pages of a bundle. */
function SheetPage({ group, page }: Pick<Props, 'group' | 'page'>) {
  const design = useSession((s) => s.design);
  const { near, far } = group;
  return (
    <>
      {page === 'Over time' && <OverTime group={group} />}
      {page === 'All settings' && <Ends group={group} />}
      {page === 'Distribution' && (
        <Suspense>
          {[...near, ...far].map((b) => (
            <Distribution key={b.id} bundle={b} verdict={verdictOf(design, b.id)!} />
          ))}
        </Suspense>
      )}
      {page === 'Trees and capacity' && <Effects group={group} />}
      {page === 'Compare options' && (
        <Suspense>
          <CompareOptions links={linksOf(design, near)} />
        </Suspense>
      )}
      {page === 'Change steps' && <ChangeSteps near={near[0]!} far={far[0] ?? null} />}
    </>
  );
}

/** Members between the two ends, and the settings of both. */
function Ends({ group }: { group: BundleGroup }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const { near, far, verdict } = group;
  const takeOut = (port: string) => {
    const own = near.find((b) => b.members.includes(port))!;
    // A member that leads to the second of a pair is taken out of the bundle there.
    const there = far.map((b) => removeMember(design, own, b, port)).find((edits) => edits.length > 1);
    edit(`Take ${portById(design, port)?.name} out of ${group.name}`, there ?? removeMember(design, own, null, port));
  };
  return (
    <>
      <Members group={group} onRemove={takeOut} />
      <div className="bundle-ends">
        <div>
          {near.map((b) => (
            <BundleEnd key={b.id} bundle={b} />
          ))}
        </div>
        <div>
          {far.map((b) => (
            <BundleEnd key={b.id} bundle={b} />
          ))}
          {far.length === 0 && (
            <p className="quiet">
              {verdict.partner?.kind === 'host'
                ? 'The other end is a host.'
                : 'The other end has no bundle that leads back here.'}
            </p>
          )}
        </div>
      </div>
    </>
  );
}

/** Links in which the members of an end are. */
const linksOf = (design: Design, end: readonly Bundle[]): string[] =>
  design.links.flatMap((l) =>
    [l.a, l.b].some((e) => 'port' in e && end.some((b) => b.members.includes(e.port))) ? [l.id] : [],
  );

/** `port 9`, of the cable's end at a bundle's switch. */
function cableName(design: Design, linkId: string, near: Bundle): string {
  const link = linkById(design, linkId)!;
  const end = [link.a, link.b]
    .flatMap((e) => ('port' in e ? [portById(design, e.port)!] : []))
    .find((p) => p.switch === near.switch);
  return `port ${end?.name ?? ''}`;
}
