'use client';
import { useState } from 'react';
import type { Design } from '../../core/design';
import { runJob } from '../../workers/run-job';
import { saveFile } from '../chart/picture';
import { useBench, useSession } from '../session/context';

/** The whole design as one printable file. */
export function SaveReport() {
  const { head, say } = useBench();
  const design = useSession((s) => s.design);
  const [busy, setBusy] = useState(false);
  const save = () => {
    setBusy(true);
    const job = runJob<Design, never, string>(
      new Worker(new URL('../../workers/report.ts', import.meta.url), { type: 'module' }),
      { ...design, name: head.name },
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
    <button
      className="tool"
      onClick={save}
      disabled={busy}
      title="All of it as one file to print: trees, settings, findings, failures"
    >
      {busy ? 'Writing…' : 'Report'}
    </button>
  );
}
