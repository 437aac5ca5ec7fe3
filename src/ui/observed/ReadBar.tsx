'use client';
import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import type { ChangeEvent } from 'react';
import type { Design, ObservedNetwork } from '../../core/design';
import { compareWithDesign, differencesCsv, differencesHtml, differencesMarkdown } from '../../core/observe';
import { count } from '../../core/standard';
import { Ago } from '../controls/Ago';
import { isMeant, pathOf, useFileDrop } from '../controls/files';
import { MenuButton } from '../controls/MenuButton';
import { SaveMenu } from '../controls/SaveMenu';
import { useKeepReading } from '../controls/useKeptReading';
import { useNewVariant } from '../controls/useNewVariant';
import { useBench, useSession } from '../session/context';
import { askBack } from '../session/flash';
import { AskDialog } from './AskDialog';
import { placedLike } from './ObservedChart';
import { askDevices, endWatch, forget, readFilesOf, stopReading, watch } from './reading';
import type { Asking, Reading } from './reading';
import { RunBar, useRun } from './RunBar';
import { useRunning } from './running';
import styles from './ObservedStage.module.css';

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

const SPEEDS = [
  { speed: 1, name: 'In real time' },
  { speed: 5, name: 'Five times as fast' },
  { speed: 20, name: 'Twenty times as fast' },
] as const;

/** The design as a network that can be asked: a stand-in for the one that is there. */
function RunAs() {
  const { variantId } = useBench();
  const empty = useSession((s) => s.design.switches.length === 0);
  const running = useRunning(variantId);
  const run = useRun();
  if (running || empty) return null;
  return (
    <MenuButton
      title="Run as a network…"
      hint="This design as SNMP agents on the server, to try reading, watching and your own tools on"
      choices={SPEEDS.map(({ speed, name }) => ({ name, onPick: () => run(speed) }))}
    />
  );
}

/** Ways to read, how far it is, and what can be done with what was read. */
export function ReadBar(props: OfReading) {
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
      <RunAs />
      <State {...props} />
      {props.network && <Doing {...props} />}
      <RunBar />
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
