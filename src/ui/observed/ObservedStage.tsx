'use client';
import Button from '@mui/material/Button';
import { useMemo, useRef, useState } from 'react';
import type { ChangeEvent } from 'react';
import { compareWithDesign } from '../../core/observe';
import { count, grouped } from '../../core/standard';
import { Ago } from '../controls/Ago';
import { isMeant, pathOf, useFileDrop } from '../controls/files';
import { OneOf } from '../controls/OneOf';
import { TreeStrip } from '../controls/TreeStrip';
import { useNewVariant } from '../controls/useNewVariant';
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

/** As built: the network that is there, read, drawn, and held against the design. */
export function ObservedStage() {
  const { head } = useBench();
  const reading = useReading(head.id);
  const design = useSession((s) => s.design);
  const inBrowser = useInBrowser();
  const [page, setPage] = useState<Page>('differences');
  const { network, drawing } = reading;
  const differences = useMemo(() => (network ? compareWithDesign(design, network) : []), [design, network]);
  const open = differences.filter((d) => d.verdict !== 'not-observed').length;
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
        <Bar reading={reading} />
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
              {page === 'sources' && <Sources reading={reading} />}
              {(page === 'differences' || !tabs.some((t) => t.id === page)) && (
                <Differences {...{ network, differences }} />
              )}
            </section>
          </>
        ) : (
          <NothingYet reading={reading} />
        )}
      </main>
    </>
  );
}

function NothingYet({ reading }: { reading: Reading }) {
  return (
    <div className={styles.empty}>
      <h2>The network that is there is not read yet</h2>
      <p>
        Drop files on the page: answers of SNMP agents (<code>snmpwalk -On</code>), JSON of <code>ip</code> and{' '}
        <code>bridge</code>, LLDP neighbours, captures, or settings after OpenConfig; one file or one folder a device.
        Or ask the devices themselves by SNMP, from one address on. What is read is drawn, and held against this design
        field by field.
      </p>
      {reading.files.some((f) => f.fault) && <Sources reading={reading} />}
    </div>
  );
}

/** Files and folders to read, chosen or dropped on the page. */
function FileButtons() {
  const { head } = useBench();
  const field = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const take = (files: readonly File[]) => {
    const meant = files.filter(isMeant);
    const picked = meant.map((file) => ({ path: pathOf(file), file }));
    if (picked.length > 0) void readFilesOf(head.id, picked);
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

/** How far a reading is, what it came to, or why there is none. */
function State({ reading }: { reading: Reading }) {
  const { head } = useBench();
  const { progress, network, at, faults } = reading;
  if (progress !== null)
    return (
      <span role="status">
        {progress}{' '}
        <button className="tool" onClick={() => stopReading(head.id)}>
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
function Bar({ reading }: { reading: Reading }) {
  const { head } = useBench();
  const [asking, setAsking] = useState(false);
  const ask = (wanted: Asking) => {
    setAsking(false);
    void askDevices(head.id, wanted);
  };
  return (
    <div className={styles.bar}>
      <FileButtons />
      <Button onClick={() => setAsking(true)}>Ask devices…</Button>
      <State reading={reading} />
      {reading.network && <Doing reading={reading} />}
      {asking && <AskDialog onClose={() => setAsking(false)} onAsk={ask} />}
    </div>
  );
}

const SECONDS = [5, 30, 300] as const;

function Doing({ reading }: { reading: Reading }) {
  const { head } = useBench();
  const design = useSession((s) => s.design);
  const makeVariant = useNewVariant();
  const draw = () => {
    if (!reading.drawing) return;
    const taken = new Set(head.variants.map((v) => v.name));
    let name = 'As built';
    for (let n = 2; taken.has(name); n++) name = `As built ${n}`;
    const said = (made: string) =>
      `Variant ${made} is the network as it was read. Hand-over plans the way from one to the other.`;
    void makeVariant(placedLike(reading.drawing, design), name, said);
  };
  return (
    <div className={styles.doing}>
      {reading.asked && (
        <label>
          watch{' '}
          <select
            value={reading.watch ?? ''}
            onChange={(e) => (e.target.value === '' ? endWatch(head.id) : watch(head.id, Number(e.target.value)))}
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
      <Button onClick={draw} title="A variant of this design, drawn from what was read">
        Draw as a variant
      </Button>
      <Button onClick={() => forget(head.id)}>Clear</Button>
    </div>
  );
}
