'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import type { SourceFile } from '../../core/formats';
import { api } from '../session/api';
import type { DeletedDesign, DesignRow } from '../session/types';
import { byLastOpen } from '../session/last-open';
import { useInBrowser } from '../session/useInBrowser';
import { Mark } from '../controls/Mark';
import { useNotice } from '../controls/Notice';
import { ThemeChoice } from '../controls/ThemeChoice';
import { readFiles, useFileDrop } from '../controls/files';
import { ImportDialog } from './ImportDialog';
import { Deleted } from './Deleted';
import { DesignItem } from './DesignItem';
import { Shelf } from './Shelf';
import type { ShelfItem } from './Shelf';
import { useDesigns } from './useDesigns';
import { NameDialog } from '../controls/NameDialog';

type Open =
  | { kind: 'new' }
  | { kind: 'import'; files: readonly SourceFile[] }
  | { kind: 'rename'; row: DesignRow }
  | { kind: 'purge'; row: DeletedDesign }
  | null;

interface Props {
  /** Null when the list is fetched by the page. */
  readonly initial: { designs: DesignRow[]; deleted: DeletedDesign[] } | null;
  readonly version: string;
  readonly shelf: readonly ShelfItem[];
  /** Whether there is a session that can be ended. */
  readonly session: boolean;
}

/** The first page: every design, and what can be done with it as a whole. */
export function DesignList({ initial, version, shelf, session }: Props) {
  const [open, setOpen] = useState<Open>(null);
  const inBrowser = useInBrowser();
  const { say, shown } = useNotice();
  const { loading, designs, deleted, attempt, remove, rename, recover, duplicate } = useDesigns(initial, say);

  const onDrop = useCallback(
    async (dropped: File[]) => {
      const read = await readFiles(dropped);
      if (read.ok) setOpen({ kind: 'import', files: read.files });
      else say({ text: read.sentence, alarm: true });
    },
    [say],
  );
  const over = useFileDrop((dropped) => void onDrop(dropped));
  return (
    <>
      <Head session={session} />
      <main className="designs">
        <header>
          <h1>Designs</h1>
          <Button onClick={() => setOpen({ kind: 'import', files: [] })}>Import…</Button>
          <Button variant="contained" onClick={() => setOpen({ kind: 'new' })}>
            New design
          </Button>
        </header>
        {loading && (
          <p className="quiet pad" role="status">
            Loading the designs…
          </p>
        )}
        {!loading && designs.length === 0 && (
          <Nothing onImport={() => setOpen({ kind: 'import', files: [] })} onNew={() => setOpen({ kind: 'new' })} />
        )}
        {(inBrowser ? byLastOpen(designs) : designs).map((row) => (
          <DesignItem
            key={row.id}
            row={row}
            onRename={() => setOpen({ kind: 'rename', row })}
            onDuplicate={() => void duplicate(row)}
            onDelete={() => void remove(row)}
            onRecover={() => void recover(row)}
          />
        ))}
        <Shelf items={shelf} taken={designs.map((row) => row.name)} onFault={(text) => say({ text, alarm: true })} />
        <Deleted
          deleted={deleted}
          onRestore={(row) => void attempt(() => api.restoreDesign(row.id))}
          onPurge={(row) => setOpen({ kind: 'purge', row })}
        />
        <Foot version={version} />
      </main>
      <Asked open={open} onClose={() => setOpen(null)} rename={rename} attempt={attempt} />
      {over && <div className="drop-here">Drop the files to import them</div>}
      {shown}
    </>
  );
}

function Head({ session }: Pick<Props, 'session'>) {
  return (
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
  );
}

/** What to do first where there is nothing yet. */
function Nothing({ onImport, onNew }: { onImport: () => void; onNew: () => void }) {
  return (
    <div className="nothing">
      <h2>No design yet</h2>
      <p>
        Sketch a network, or import one: tables of switches and links, a graph, a design that a colleague sent you.
        Files can be dropped anywhere on this page. Knot Path then shows the root, the paths and the blocked ports of
        each VLAN.
      </p>
      <div>
        <Button variant="contained" onClick={onImport}>
          Import…
        </Button>
        <Button onClick={onNew}>Start empty</Button>
      </div>
    </div>
  );
}

function Foot({ version }: Pick<Props, 'version'>) {
  return (
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
  );
}

interface AskedProps {
  readonly open: Open;
  readonly onClose: () => void;
  readonly rename: (row: DesignRow, name: string) => Promise<void>;
  readonly attempt: (run: () => Promise<unknown>) => Promise<void>;
}

/** The dialog that is open. */
function Asked({ open, onClose, rename, attempt }: AskedProps) {
  const router = useRouter();
  const enter = (id: string, stage = 'trees') => router.push(`/d/${encodeURIComponent(id)}/${stage}`);
  switch (open?.kind) {
    case 'new':
      return (
        <NameDialog
          title="New design"
          label="Name of the design"
          initial="New design"
          action="Create"
          onSubmit={async (name) => enter((await api.createDesign(name)).id, 'cabling')}
          onClose={onClose}
        />
      );
    case 'rename':
      return (
        <NameDialog
          title="Rename design"
          label="Name of the design"
          initial={open.row.name}
          action="Rename"
          onSubmit={(name) => rename(open.row, name)}
          onClose={onClose}
        />
      );
    case 'purge':
      return (
        <Purge row={open.row} onClose={onClose} onPurge={() => void attempt(() => api.purgeDesign(open.row.id))} />
      );
    case 'import':
      return <ImportDialog initial={open.files} onDone={(head) => enter(head.id)} onClose={onClose} />;
    default:
      return null;
  }
}

function Purge({ row, onClose, onPurge }: { row: DeletedDesign; onClose: () => void; onPurge: () => void }) {
  return (
    <Dialog open onClose={onClose}>
      <DialogTitle>Delete {row.name} permanently?</DialogTitle>
      <DialogContent>This cannot be undone. A backup made before still has it.</DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          onClick={() => {
            onClose();
            onPurge();
          }}
        >
          Delete permanently
        </Button>
      </DialogActions>
    </Dialog>
  );
}
