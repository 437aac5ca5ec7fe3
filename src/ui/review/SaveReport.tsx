'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { PAPERS, SECTION_IDS, SECTION_TITLES } from '../../core/report';
import type { Paper, SectionId } from '../../core/report';
import { runJob } from '../../workers/run-job';
import type { ReportRequest } from '../../workers/report';
import { saveFile } from '../chart/picture';
import { OneOf } from '../controls/OneOf';
import { useBench, useSession } from '../session/context';
import styles from './ReviewStage.module.css';

const ON_PAPER = PAPERS.map((id) => ({ id, name: id }));

/** The design as one printable file, of the sections that are chosen, on paper of a size. */
export function SaveReport() {
  const { head, say } = useBench();
  const design = useSession((s) => s.design);
  const [busy, setBusy] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const save = (sections: readonly SectionId[], paper: Paper) => {
    setChoosing(false);
    setBusy(true);
    const job = runJob<ReportRequest, never, string>(
      new Worker(new URL('../../workers/report.ts', import.meta.url), { type: 'module' }),
      { design: { ...design, name: head.name }, sections, paper },
      { failure: (why) => `The report was not written: ${why}` },
    );
    job.done
      .then(
        (text) => text !== null && saveFile(new Blob([text], { type: 'text/html' }), `${head.name} report.html`),
        (error: Error) => say({ text: error.message, alarm: true }),
      )
      .finally(() => setBusy(false));
  };
  return (
    <>
      <button
        className="tool"
        onClick={() => setChoosing(true)}
        disabled={busy}
        title="The design as one file to print: trees, settings, findings, failures"
      >
        {busy ? 'Writing…' : 'Report…'}
      </button>
      {choosing && <ReportDialog onSave={save} onClose={() => setChoosing(false)} />}
    </>
  );
}

interface Props {
  readonly onSave: (sections: readonly SectionId[], paper: Paper) => void;
  readonly onClose: () => void;
}

function ReportDialog({ onSave, onClose }: Props) {
  const [sections, setSections] = useState<readonly SectionId[]>(SECTION_IDS);
  const [paper, setPaper] = useState<Paper>('A4');
  const toggle = (id: SectionId) =>
    setSections((was) => SECTION_IDS.filter((other) => (other === id) !== was.includes(other)));
  return (
    <Dialog open onClose={onClose} aria-labelledby="report-title">
      <DialogTitle id="report-title">Report</DialogTitle>
      <DialogContent>
        <div className={styles.sections}>
          {SECTION_IDS.map((id) => (
            <label key={id}>
              <input type="checkbox" checked={sections.includes(id)} onChange={() => toggle(id)} /> {SECTION_TITLES[id]}
            </label>
          ))}
        </div>
        <OneOf label="Paper" options={ON_PAPER} value={paper} onPick={setPaper} lead={<span>Paper </span>} />
      </DialogContent>
      <DialogActions>
        <Button disabled={sections.length === SECTION_IDS.length} onClick={() => setSections(SECTION_IDS)}>
          All sections
        </Button>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={sections.length === 0} onClick={() => onSave(sections, paper)}>
          Save the report
        </Button>
      </DialogActions>
    </Dialog>
  );
}
