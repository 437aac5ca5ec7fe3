'use client';
import Button from '@mui/material/Button';
import { useMemo, useRef, useState } from 'react';
import type { ChangeEvent } from 'react';
import type { Design, ObservedNetwork } from '../../core/design';
import {
  compareWithDesign,
  differencesCsv,
  differencesHtml,
  differencesMarkdown,
  drawObserved,
  gatherTrees,
} from '../../core/observe';
import { count, grouped } from '../../core/standard';
import { Ago } from '../controls/Ago';
import { isMeant, pathOf, useFileDrop } from '../controls/files';
import { OneOf } from '../controls/OneOf';
import { TreeStrip } from '../controls/TreeStrip';
import { useKeepReading, useKeptReading } from '../controls/useKeptReading';
import type { KeptNetwork } from '../controls/useKeptReading';
import { useNewVariant } from '../controls/useNewVariant';
import { SaveMenu } from '../controls/SaveMenu';
import { askBack } from '../session/flash';
import { useBench, useSession } from '../session/context';
import { useInBrowser } from '../session/useInBrowser';
import { AskDialog } from './AskDialog';
import { Differences } from './Differences';
import { Changes, OverTime, Questions, Sources } from './Lists';
import { ObservedChart, placedLike } from './ObservedChart';
import { askDevices, endWatch, forget, readFilesOf, stopReading, useReading, watch } from './reading';
import type { Asking, Reading } from './reading';
import styles from './ObservedStage.module.css';

type Page = 'differences' | 'questions' | 'changes' | 'time' | 'sources';

/** What was read, as the design keeps it or as a watch has it, drawn, and where it differs. */
function useRead(reading: Reading) {
  const kept = useKeptReading();
  const design = useSession((s) => s.design);
  const { network = null, at = null } = reading.live ?? kept ?? {};
  const drawing = useMemo(() => network && drawObserved(network, 'As built').design, [network]);
  const differences = useMemo(() => (network ? compareWithDesign(design, network) : []), [design, network]);
  const open = useMemo(
    () => gatherTrees(differences.filter((d) => d.verdict !== 'not-observed')).length,
    [differences],
  );
  return { kept, network, drawing, at, differences, open };
}

/** As built: the network that is there, read, drawn, and held against the design. */
export function ObservedStage() {
  const { variantId } = useBench();
  const reading = useReading(variantId);
  const { kept, network, drawing, at, differences, open } = useRead(reading);
  const inBrowser = useInBrowser();
  const [page, setPage] = useState<Page>('differences');
  const questions = (network?.questions.length ?? 0) + reading.faults.length;
  const number = (n: number, alarm: boolean) => (
    <span className={alarm && n > 0 ? 'alarm' : 'quiet'}>{grouped(n)}</span>
  );
  const changes = reading.moments.reduce((sum, m) => sum + m.changes.length, 0);
  const deviates = network?.questions.some((q) => q.kind === 'deviates') ?? false;
  const tabs = [
    { id: 'differences' as const, name: <>Differences {number(open, true)}</> },
    { id: 'questions' as const, name: <>Questions {number(questions, deviates)}</> },
    ...(reading.asked ? [{ id: 'changes' as const, name: <>Changes {number(changes, true)}</> }] : []),
    ...(reading.captures.length > 0 ? [{ id: 'time' as const, name: <>Over time</> }] : []),
    { id: 'sources' as const, name: <>Sources</> },
  ];
  return (
    <>
      <TreeStrip />
      <main className={styles.stage}>
        <Bar {...{ reading, network, drawing, at }} />
        {network && drawing ? (
          <>
            <section className={`chart-side ${styles.chart}`} aria-label="The network as designed or as built">
              {inBrowser && <ObservedChart {...{ network, drawing, differences }} />}
            </section>
            <section className={styles.side} aria-label="What was read">
              <OneOf
                className="boards"
                label="What is shown"
                options={tabs}
                value={tabs.some((t) => t.id === page) ? page : 'differences'}
                onPick={setPage}
              />
              {page === 'questions' && <Questions network={network} faults={reading.faults} />}
              {page === 'changes' && reading.asked && <Changes moments={reading.moments} watch={reading.watch} />}
              {page === 'time' && reading.captures.length > 0 && <OverTime reading={reading} />}
              {page === 'sources' && <Sources files={reading.files} network={network} />}
              {(page === 'differences' || !tabs.some((t) => t.id === page)) && (
                <Differences {...{ network, differences }} />
              )}
            </section>
          </>
        ) : (
          <NothingYet reading={reading} kept={kept} />
        )}
      </main>
    </>
  );
}

function NothingYet({ reading, kept }: { reading: Reading; kept: KeptNetwork | null }) {
  if (kept && !kept.damaged) return <p className="quiet pad">Unpacking what was read…</p>;
  return (
    <div className={styles.empty}>
      {kept?.damaged && (
        <p className="alarm" role="alert">
          The reading that this design keeps is damaged and cannot be shown: read the network again.
        </p>
      )}
      <h2>The network that is there is not read yet</h2>
      <p>
        Drop files on the page: answers of SNMP agents (<code>snmpwalk -On</code>), JSON of <code>ip</code> and{' '}
        <code>bridge</code>, LLDP neighbours, captures, or settings after OpenConfig; one file or one folder a device.
        Or ask the devices themselves by SNMP, from one address on. What is read is drawn, and held against this design
        field by field.
      </p>
      {reading.files.some((f) => f.fault) && <Sources files={reading.files} network={null} />}
    </div>
  );
}

/** Files and folders to read, chosen or dropped on the page. */
function FileButtons() {
  const { variantId } = useBench();
  const keep = useKeepReading();
  const field = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const take = (files: readonly File[]) => {
    const meant = files.filter(isMeant);
    const picked = meant.map((file) => ({ path: pathOf(file), file }));
    if (picked.length > 0) void readFilesOf(variantId, picked, keep);
  };
  useFileDrop(take);
  const onChange = (event: ChangeEvent<HTMLInputElement>) => {
    take([...(event.target.files ?? [])]);
    event.target.value = '';
  };
  const hidden = { className: 'visually-hidden', type: 'file', tabIndex: -1, onChange } as const;
  return (
    <>
      <Button onClick={() => field.current?.click()}>Read files…</Button>
      <Button onClick={() => folder.current?.click()}>Read a folder…</Button>
      <input {...hidden} ref={field} multiple aria-label="Files that devices wrote" />
      <input
        {...hidden}
        ref={(input) => {
          folder.current = input;
          input?.setAttribute('webkitdirectory', '');
        }}
        aria-label="Folder with a folder or a file a device"
      />
    </>
  );
}

interface OfReading {
  readonly reading: Reading;
  readonly network: ObservedNetwork | null;
  readonly drawing: Design | null;
  readonly at: number | null;
}

/** How far a reading is, what it came to, or why there is none. */
function State({ reading: { progress, faults }, network, at }: OfReading) {
  const { variantId } = useBench();
  if (progress !== null)
    return (
      <span role="status">
        {progress}{' '}
        <button className="tool" onClick={() => stopReading(variantId)}>
          Stop
        </button>
      </span>
    );
  if (network && at !== null)
    return (
      <span className="quiet" role="status">
        {count(network.switches.length, 'switch', 'switches')} read <Ago at={at} />
      </span>
    );
  return faults.length === 0 ? null : (
    <span className="alarm" role="alert">
      {faults[0]}
    </span>
  );
}

/** Ways to read, how far it is, and what can be done with what was read. */
function Bar(props: OfReading) {
  const { variantId } = useBench();
  const keep = useKeepReading();
  const [asking, setAsking] = useState(false);
  const ask = (wanted: Asking) => {
    setAsking(false);
    void askDevices(variantId, wanted, keep);
  };
  return (
    <div className={styles.bar}>
      <FileButtons />
      <Button onClick={() => setAsking(true)}>Ask devices…</Button>
      <State {...props} />
      {props.network && <Doing {...props} />}
      {asking && <AskDialog onClose={() => setAsking(false)} onAsk={ask} />}
    </div>
  );
}

/** What differs and what is open, as a file. */
function SaveReport({ network, at }: { network: ObservedNetwork; at: number }) {
  const design = useSession((s) => s.design);
  const of = () => ({
    title: design.name,
    at: new Date(at).toISOString(),
    network,
    differences: compareWithDesign(design, network),
  });
  return (
    <SaveMenu
      title="Report…"
      file={`${design.name} as built`}
      forms={[
        { name: 'To print (HTML)', type: 'text/html', end: 'html', write: () => differencesHtml(of()) },
        { name: 'Markdown', type: 'text/markdown', end: 'md', write: () => differencesMarkdown(of()) },
        { name: 'Table (CSV)', type: 'text/csv', end: 'csv', write: () => differencesCsv(of()) },
      ]}
    />
  );
}

const SECONDS = [5, 30, 300] as const;

function Doing({ reading, network, drawing, at }: OfReading) {
  const { head, variantId, go } = useBench();
  const keep = useKeepReading();
  const design = useSession((s) => s.design);
  const makeVariant = useNewVariant();
  const draw = () => {
    if (!drawing) return;
    const taken = new Set(head.variants.map((v) => v.name));
    let name = 'As built';
    for (let n = 2; taken.has(name); n++) name = `As built ${n}`;
    const said = (made: string) =>
      `Variant ${made} is the network as it was read. Hand-over plans the way from one to the other.`;
    void makeVariant({ ...placedLike(drawing, design), readings: design.readings }, name, said);
  };
  return (
    <div className={styles.doing}>
      {reading.asked && (
        <label>
          watch{' '}
          <select
            value={reading.watch ?? ''}
            onChange={(e) =>
              e.target.value === '' ? endWatch(variantId, keep) : watch(variantId, Number(e.target.value))
            }
          >
            <option value="">off</option>
            {SECONDS.map((s) => (
              <option key={s} value={s}>
                every {s} s
              </option>
            ))}
          </select>
        </label>
      )}
      <Button
        title="Steps that make the network what this design says, from what was read"
        onClick={() => {
          askBack(true);
          go('hand-over');
        }}
      >
        Plan the change…
      </Button>
      {network && at !== null && <SaveReport {...{ network, at }} />}
      <Button onClick={draw} title="A variant of this design, drawn from what was read">
        Draw as a variant
      </Button>
      <Button onClick={() => forget(variantId, keep)}>Clear</Button>
    </div>
  );
}
