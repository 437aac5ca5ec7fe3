'use client';
import Button from '@mui/material/Button';
import { useCallback, useEffect, useLayoutEffect, useMemo, useState } from 'react';
import { count } from '../../core/standard';
import type { Chosen } from '../../core/editing';
import type { Intake, SourceFile } from '../../core/formats';
import { readFiles, useFileDrop } from '../controls/files';
import { listenForTable } from '../session/commands';
import type { TablePlace } from '../session/commands';
import { useBench } from '../session/context';
import type { Way } from './arrange-job';
import { CableDialog } from './CableDialog';
import { CablingChart } from './CablingChart';
import { Dock } from './Dock';
import type { Tab } from './Dock';
import { IntakeDialog } from './IntakeDialog';
import { PatternDialog } from './PatternDialog';
import { Splitter, useDockHeight } from '../controls/Splitter';
import { Tools } from './Tools';
import { useArranging } from './useArranging';
import { useCabling } from './useCabling';
import type { Cabling } from './useCabling';
import { useCablingClipboard } from './useCablingClipboard';
import { useCablingCommands } from './useCablingCommands';
import { marksOf, useNeighbours } from './useNeighbours';
import { VlanStrip } from './VlanStrip';
import styles from './CablingStage.module.css';

type Asking =
  { kind: 'pattern' } | { kind: 'files'; files: readonly SourceFile[] } | { kind: 'cable'; from: Chosen } | null;

/** What is asked for in a dialog, and what the commands of the stage open. */
function useStage(cabling: Cabling) {
  const { say, setStageCommands } = useBench();
  const { design } = cabling;
  const [asking, setAsking] = useState<Asking>(null);
  const [tab, setTab] = useState<Tab>('links');
  const dock = useDockHeight();
  const neighbours = useNeighbours(design);
  const { job, startArranging } = useArranging(cabling);
  const { setMarks } = cabling;
  const { findings, inferred } = neighbours;
  const checking = tab === 'neighbours' && dock.height > 0;
  useEffect(
    () => setMarks(checking && (findings || inferred.size > 0) ? marksOf(design, { findings, inferred }) : null),
    [checking, findings, inferred, design, setMarks],
  );
  const { toggle, show } = dock;
  const [wanted, setWanted] = useState<TablePlace | null>(null);
  useEffect(
    () =>
      listenForTable((place) => {
        show();
        setTab(place.table);
        setWanted(place);
      }),
    [show],
  );
  const doings = useMemo(
    () => ({
      pattern: () => setAsking({ kind: 'pattern' }),
      files: () => setAsking({ kind: 'files', files: [] }),
      cableFrom: (from: Chosen) => setAsking({ kind: 'cable', from }),
      arrange: (way: Way) => void startArranging(way),
      tables: toggle,
      check: () => (show(), setTab('neighbours')),
    }),
    [startArranging, toggle, show],
  );
  const commands = useCablingCommands(cabling, doings);
  // A key that comes right after a change finds commands that know of it.
  useLayoutEffect(() => {
    setStageCommands(commands);
    return () => setStageCommands([]);
  }, [commands, setStageCommands]);
  useCablingClipboard(cabling);
  const onDrop = useCallback(
    async (dropped: File[]) => {
      const read = await readFiles(dropped);
      if (read.ok) setAsking({ kind: 'files', files: read.files });
      else say({ text: read.sentence, alarm: true });
    },
    [say],
  );
  const over = useFileDrop((dropped) => void onDrop(dropped));
  return { asking, ask: setAsking, tab, setTab, wanted, dock, neighbours, job, doings, commands, over };
}

/** Laying the network out: the drawing, the tables beside it, VLANs on the cables, what the switches hear. */
export function CablingStage() {
  const cabling = useCabling();
  const { asking, ask, tab, setTab, wanted, dock, neighbours, job, doings, commands, over } = useStage(cabling);
  const { design, run } = cabling;
  const onTake = (intake: Intake) => {
    ask(null);
    const names = intake.files.map((f) => f.file);
    if (intake.edits.length > 0)
      run({ label: `Import ${names.length === 1 ? names[0] : `${names.length} files`}`, edits: intake.edits });
    if (intake.receptions.length > 0) {
      neighbours.take(intake.receptions);
      dock.show();
      setTab('neighbours');
    }
  };

  const empty = design.switches.length === 0 && design.hosts.length === 0 && design.segments.length === 0;
  return (
    <>
      <VlanStrip cabling={cabling} />
      <main className="cabling">
        <section className="chart-side" aria-label="Drawing">
          <Tools cabling={cabling} commands={commands} />
          <div className="drawing" data-tool={cabling.tool}>
            <CablingChart cabling={cabling} />
            {empty && <EmptyDrawing onPattern={doings.pattern} onFiles={doings.files} />}
            {job && (
              <div className="job" role="status">
                <span className={styles.jobBar} aria-hidden="true" />
                Arranging {count(design.switches.length, 'switch', 'switches')}…
                <Button onClick={job.cancel}>Cancel</Button>
              </div>
            )}
          </div>
        </section>
        <Splitter dock={dock} />
        {dock.height > 0 && (
          <div style={{ height: dock.height, flex: 'none', minHeight: 0, display: 'flex' }}>
            <Dock {...{ cabling, tab, neighbours, wanted }} onTab={setTab} onFiles={doings.files} />
          </div>
        )}
      </main>
      <Dialogs asking={asking} cabling={cabling} onTake={onTake} onClose={() => ask(null)} />
      {over && <div className="drop-here">Drop the files to preview them</div>}
    </>
  );
}

interface DialogsProps {
  readonly asking: Asking;
  readonly cabling: Cabling;
  readonly onTake: (intake: Intake) => void;
  readonly onClose: () => void;
}

function Dialogs({ asking, cabling, onTake, onClose }: DialogsProps) {
  switch (asking?.kind) {
    case 'pattern':
      return <PatternDialog cabling={cabling} onClose={onClose} />;
    case 'cable':
      return <CableDialog cabling={cabling} from={asking.from} onClose={onClose} />;
    case 'files':
      return <IntakeDialog design={cabling.design} initial={asking.files} onTake={onTake} onClose={onClose} />;
    default:
      return null;
  }
}

/** What to do first on an empty sheet. */
function EmptyDrawing({ onPattern, onFiles }: { onPattern: () => void; onFiles: () => void }) {
  return (
    <div className={styles.emptyDrawing}>
      <h2>An empty sheet</h2>
      <p>
        Double-click anywhere to put a switch there, then pull cables from the dot at its corner; on empty paper a cable
        makes the next switch. Or paste rows from a spreadsheet into the tables below.
      </p>
      <p>
        <Button variant="contained" onClick={onPattern}>
          Start from a pattern…
        </Button>
        <Button onClick={onFiles}>Import files…</Button>
      </p>
    </div>
  );
}
