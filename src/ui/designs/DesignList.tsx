'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { SourceFile } from '../../core/formats';
import { api } from '../session/api';
import { listenToNotices } from '../session/notices';
import type { DeletedDesign, DesignRow } from '../session/types';
import { Mark } from '../controls/Mark';
import { useNotice } from '../controls/Notice';
import { ThemeChoice } from '../controls/ThemeChoice';
import { readFiles, useFileDrop } from '../controls/files';
import { ImportDialog } from './ImportDialog';
import { Deleted } from './Deleted';
import { DesignItem } from './DesignItem';
import { NameDialog } from '../controls/NameDialog';

type Open =
  | { kind: 'new' }
  | { kind: 'import'; files: readonly SourceFile[] }
  | { kind: 'rename'; row: DesignRow }
  | { kind: 'purge'; row: DeletedDesign }
  | null;

const NOTHING_YET = { designs: [], deleted: [] };

interface Props {
  /** Null when the list is fetched by the page. */
  readonly initial: { designs: DesignRow[]; deleted: DeletedDesign[] } | null;
  readonly version: string;
  /** Whether there is a session that can be ended. */
  readonly session: boolean;
}

/** The first page: every design, and what can be done with it as a whole. */
export function DesignList({ initial, version, session }: Props) {
  const [lists, setLists] = useState(initial);
  const { designs: rows, deleted } = lists ?? NOTHING_YET;
  const [open, setOpen] = useState<Open>(null);
  const { say, shown } = useNotice();
  const router = useRouter();
  const reload = useCallback(async () => setLists(await api.listDesigns()), []);
  const enter = (id: string, stage = 'trees') => router.push(`/d/${encodeURIComponent(id)}/${stage}`);

  useEffect(() => {
    if (initial === null) void reload().catch((error: Error) => say({ text: error.message, alarm: true }));
  }, [initial, reload, say]);
  // What other windows make or delete shows here too.
  useEffect(
    () => listenToNotices((notice) => void (notice.kind === 'designs' && reload().catch(() => undefined))),
    [reload],
  );

  const onDrop = useCallback(
    async (dropped: File[]) => {
      const read = await readFiles(dropped);
      if (read.ok) setOpen({ kind: 'import', files: read.files });
      else say({ text: read.sentence, alarm: true });
    },
    [say],
  );
  const over = useFileDrop((dropped) => void onDrop(dropped));

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
  const recover = (row: DesignRow) =>
    attempt(async () => {
      const made = await api.recoverDesign(row.id);
      say({ text: `Made ${made.name} from the last readable state.` });
    });
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
        {session && (
          <button className="tool" onClick={() => void api.signOut().then(() => window.location.assign('/sign-in'))}>
            Sign out
          </button>
        )}
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
        {lists === null && (
          <p className="quiet pad" role="status">
            Loading the designs…
          </p>
        )}
        {lists !== null && rows.length === 0 && (
          <div className="nothing">
            <h2>No design yet</h2>
            <p>
              Sketch a network, or import one: tables of switches and links, a graph, a design that a colleague sent
              you. Files can be dropped anywhere on this page. Knot Path then shows the root, the paths and the blocked
              ports of each VLAN.
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
          <DesignItem
            key={row.id}
            row={row}
            onRename={() => setOpen({ kind: 'rename', row })}
            onDuplicate={() => void duplicate(row)}
            onDelete={() => void remove(row)}
            onRecover={() => void recover(row)}
          />
        ))}
        <Deleted
          deleted={deleted}
          onRestore={(row) => void attempt(() => api.restoreDesign(row.id))}
          onPurge={(row) => setOpen({ kind: 'purge', row })}
        />
        <footer className="quiet">
          <span>Knot Path {version}</span>
          <span className="grow" />
          <a href="/api/archive" download>
            All designs as one archive
          </a>
          <a href="/api/backup" download>
            Backup of the database
          </a>
        </footer>
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
      {open?.kind === 'purge' && (
        <Dialog open onClose={() => setOpen(null)}>
          <DialogTitle>Delete {open.row.name} permanently?</DialogTitle>
          <DialogContent>This cannot be undone. A backup made before still has it.</DialogContent>
          <DialogActions>
            <Button onClick={() => setOpen(null)}>Cancel</Button>
            <Button
              variant="contained"
              onClick={() => {
                const { id } = open.row;
                setOpen(null);
                void attempt(() => api.purgeDesign(id));
              }}
            >
              Delete permanently
            </Button>
          </DialogActions>
        </Dialog>
      )}
      {open?.kind === 'import' && (
        <ImportDialog initial={open.files} onDone={(head) => enter(head.id)} onClose={() => setOpen(null)} />
      )}
      {over && <div className="drop-here">Drop the files to import them</div>}
      {shown}
    </>
  );
}
