'use client';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import type { SourceFile } from '../../core/formats';
import { api } from '../session/api';
import type { DesignRow } from '../session/types';
import { Mark } from '../shell/Mark';
import { useNotice } from '../shell/Notice';
import { ThemeChoice } from '../shell/ThemeChoice';
import { readFiles, useFileDrop } from './files';
import { ImportDialog } from './ImportDialog';
import { NameDialog } from './NameDialog';
import { Thumb } from './Thumb';
import { Ago } from './Ago';

type Open =
  { kind: 'new' } | { kind: 'import'; files: readonly SourceFile[] } | { kind: 'rename'; row: DesignRow } | null;

/** The first page: every design, and what can be done with it as a whole. */
export function DesignList({ initial }: { initial: DesignRow[] }) {
  const [rows, setRows] = useState(initial);
  const [open, setOpen] = useState<Open>(null);
  const { say, shown } = useNotice();
  const router = useRouter();
  const reload = async () => setRows(await api.listDesigns());
  const enter = (id: string, stage = 'trees') => router.push(`/d/${encodeURIComponent(id)}/${stage}`);

  const onDrop = useCallback(
    async (dropped: File[]) => {
      const read = await readFiles(dropped);
      if (read.ok) setOpen({ kind: 'import', files: read.files });
      else say({ text: read.sentence, alarm: true });
    },
    [say],
  );
  const over = useFileDrop(onDrop);

  const attempt = async (run: () => Promise<unknown>) => {
    try {
      await run();
      await reload();
    } catch (error) {
      say({ text: error instanceof Error ? error.message : String(error), alarm: true });
    }
  };
  const remove = (row: DesignRow) =>
    attempt(async () => {
      await api.deleteDesign(row.id);
      say({
        text: `Deleted ${row.name}.`,
        action: { label: 'Undo', run: () => void attempt(() => api.restoreDesign(row.id)) },
      });
    });
  const rename = async (row: DesignRow, name: string) => {
    await api.renameDesign(row.id, name);
    await reload();
    say({
      text: `Renamed ${row.name} to ${name}.`,
      action: { label: 'Undo', run: () => void attempt(() => api.renameDesign(row.id, row.name)) },
    });
  };
  const duplicate = (row: DesignRow) =>
    attempt(async () => {
      const copy = await api.duplicateDesign(row.id);
      say({
        text: `Made ${copy.name}.`,
        action: { label: 'Undo', run: () => void attempt(() => api.deleteDesign(copy.id)) },
      });
    });

  return (
    <>
      <header className="head">
        <Link className="brand" href="/">
          <Mark /> Knot Path
        </Link>
        <span className="grow" />
        <ThemeChoice />
      </header>
      <main className="designs">
        <header>
          <h1>Designs</h1>
          <Button onClick={() => setOpen({ kind: 'import', files: [] })}>Import…</Button>
          <Button variant="contained" onClick={() => setOpen({ kind: 'new' })}>
            New design
          </Button>
        </header>
        {rows.length === 0 && (
          <div className="nothing">
            <h2>No design yet</h2>
            <p>
              Sketch a network, or import one: tables of switches and links, a graph, a design that a colleague sent
              you. Files can be dropped anywhere on this page. Knot Path then shows for each VLAN who is root, which way
              it goes and where it is cut.
            </p>
            <div>
              <Button variant="contained" onClick={() => setOpen({ kind: 'import', files: [] })}>
                Import…
              </Button>
              <Button onClick={() => setOpen({ kind: 'new' })}>Start empty</Button>
            </div>
          </div>
        )}
        {rows.map((row) => (
          <article className="design-row" key={row.id} aria-label={row.name}>
            <Link href={`/d/${encodeURIComponent(row.id)}/trees`} tabIndex={-1} aria-hidden="true">
              <Thumb dots={row.dots} lines={row.lines} />
            </Link>
            <div>
              <Link className="name" href={`/d/${encodeURIComponent(row.id)}/trees`}>
                {row.name}
              </Link>
              <div className="quiet">
                {row.variants.length === 1 ? '1 variant' : `${row.variants.length} variants`}:{' '}
                {row.variants.map((v) => v.name).join(', ')}
              </div>
            </div>
            <div className="figure quiet">
              <b>{row.switches}</b> {row.switches === 1 ? 'switch' : 'switches'}
            </div>
            <div className="figure quiet">
              <b>{row.links}</b> {row.links === 1 ? 'link' : 'links'}
            </div>
            <div className="figure quiet">
              <b>{row.trees}</b> {row.trees === 1 ? 'tree' : 'trees'}
            </div>
            <div className="quiet">
              changed <Ago at={row.changedAt} />
            </div>
            <div>
              <button
                className="tool"
                onClick={() => setOpen({ kind: 'rename', row })}
                aria-label={`Rename ${row.name}`}
              >
                Rename
              </button>
              <button className="tool" onClick={() => duplicate(row)} aria-label={`Duplicate ${row.name}`}>
                Duplicate
              </button>
              <button className="tool" onClick={() => remove(row)} aria-label={`Delete ${row.name}`}>
                Delete
              </button>
            </div>
          </article>
        ))}
      </main>
      {open?.kind === 'new' && (
        <NameDialog
          title="New design"
          label="Name of the design"
          initial="New design"
          action="Create"
          onSubmit={async (name) => enter((await api.createDesign(name)).id, 'cabling')}
          onClose={() => setOpen(null)}
        />
      )}
      {open?.kind === 'rename' && (
        <NameDialog
          title="Rename design"
          label="Name of the design"
          initial={open.row.name}
          action="Rename"
          onSubmit={(name) => rename(open.row, name)}
          onClose={() => setOpen(null)}
        />
      )}
      {open?.kind === 'import' && (
        <ImportDialog initial={open.files} onDone={(head) => enter(head.id)} onClose={() => setOpen(null)} />
      )}
      {over && <div className="drop-here">Drop the files to import them</div>}
      {shown}
    </>
  );
}
