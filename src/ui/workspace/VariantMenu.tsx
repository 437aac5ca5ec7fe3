'use client';
import Divider from '@mui/material/Divider';
import ListItemText from '@mui/material/ListItemText';
import MenuItem from '@mui/material/MenuItem';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { later } from '../controls/later';
import { asPng, pictureOf, saveFile, saveFrom } from '../chart/picture';
import { api } from '../session/api';
import { viewAddress } from '../session/view';
import { useBench, useSession } from '../session/context';
import type { CsvTable } from '../../core/formats';
import type { PartialTable } from './TableExport';
import { sheetTitle } from './sheet-title';
import { copyLink } from './copy-link';
import { sayNext } from '../session/flash';
import { DropMenu } from '../controls/DropMenu';

const NameDialog = later(() => import('../controls/NameDialog').then((m) => m.NameDialog));
const TableExport = later(() => import('./TableExport').then((m) => m.TableExport));

const FORMATS = [
  { format: 'json', label: 'Design (JSON)' },
  { format: 'switches', label: 'Switches (CSV)' },
  { format: 'links', label: 'Links (CSV)' },
  { format: 'vlans', label: 'VLANs (CSV)' },
  { format: 'graphml', label: 'Graph (GraphML)' },
  { format: 'topology', label: 'Topology (RFC 8345 JSON)' },
  { format: 'openconfig', label: 'Settings by device (OpenConfig JSON)' },
  { format: 'ieee-yang', label: 'Settings by device (IEEE YANG JSON)' },
  { format: 'settings', label: 'Settings by device (text)' },
  { format: 'networkd', label: 'Settings by device (systemd-networkd)' },
  { format: 'linux-lab', label: 'Network on Linux (shell script)' },
];

const TABLES: readonly CsvTable[] = ['switches', 'links', 'vlans'];

/** What can be done with the variant in view. */
function useVariant() {
  const bench = useBench();
  const { session, head, variantId, view, say, stage } = bench;
  const router = useRouter();
  const current = head.variants.find((v) => v.id === variantId) ?? head.variants[0]!;
  const go = (id: string) => router.push(viewAddress(head.id, stage, id, view));

  const savePicture = async (format: 'svg' | 'png') => {
    const chart = document.querySelector<SVGSVGElement>('svg.chart');
    if (!chart) return say({ text: 'There is no drawing to save yet.' });
    try {
      const picture = await pictureOf(chart, sheetTitle(bench));
      const name = `${head.name} ${current.name}`.toLowerCase().replace(/[^a-z0-9]+/g, '-');
      const blob = format === 'svg' ? new Blob([picture.svg], { type: 'image/svg+xml' }) : await asPng(picture);
      saveFile(blob, `${name}.${format}`);
    } catch (error) {
      say({
        text: `The picture could not be made: ${error instanceof Error ? error.message : String(error)}`,
        alarm: true,
      });
    }
  };

  const remove = async () => {
    await session.settled();
    try {
      const next = await api.deleteVariant(head.id, current.id);
      const back = () => void api.restoreVariant(head.id, current.id).then(() => go(current.id));
      sayNext({ text: `Deleted variant ${current.name}.`, action: { label: 'Undo', run: back } });
      go(next.variants[0]!.id);
    } catch (error) {
      say({ text: error instanceof Error ? error.message : String(error), alarm: true });
    }
  };
  const leaveTo = (id: string) => session.settled().then(() => go(id));
  return { current, go, savePicture, remove, leaveTo };
}

/** Switches between variants of the design, copies, renames and deletes them, and exports the one in view. */
export function VariantMenu() {
  const bench = useBench();
  const { head } = bench;
  const { current, go, savePicture, remove, leaveTo } = useVariant();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [asking, setAsking] = useState<'copy' | 'rename' | null>(null);
  const [table, setTable] = useState<PartialTable | null>(null);
  const close = () => setAnchor(null);
  return (
    <>
      <button
        className="tool"
        aria-haspopup="menu"
        onClick={(e) => setAnchor(e.currentTarget)}
        aria-label={`Variant: ${current.name}`}
      >
        <i>{current.name}</i> <span aria-hidden="true">▾</span>
      </button>
      <DropMenu at={anchor} onClose={close}>
        {head.variants.map((v) => (
          <MenuItem
            key={v.id}
            selected={v.id === current.id}
            onClick={() => {
              close();
              if (v.id !== current.id) void leaveTo(v.id);
            }}
          >
            <ListItemText primary={v.name} />
          </MenuItem>
        ))}
        <Divider />
        <MenuItem onClick={() => (close(), void copyLink(bench))}>Copy a link to this view</MenuItem>
        <MenuItem onClick={() => (close(), setAsking('copy'))}>Copy this variant…</MenuItem>
        <MenuItem onClick={() => (close(), setAsking('rename'))}>Rename this variant…</MenuItem>
        <MenuItem disabled={head.variants.length === 1} onClick={() => (close(), void remove())}>
          Delete this variant
        </MenuItem>
        <Divider />
        <Exports onClose={close} savePicture={savePicture} onTable={setTable} />
      </DropMenu>
      {table && <TableExport {...table} onClose={() => setTable(null)} />}
      {asking && <Naming asking={asking} current={current} go={go} onClose={() => setAsking(null)} />}
    </>
  );
}

interface ExportsProps {
  readonly onClose: () => void;
  readonly savePicture: (format: 'svg' | 'png') => Promise<void>;
  /** A table is asked for that leaves something out. */
  readonly onTable: (table: PartialTable) => void;
}

function Exports({ onClose, savePicture, onTable }: ExportsProps) {
  const { variantId } = useBench();
  const design = useSession((s) => s.design);
  /** A table that leaves something out says so first; what knows of tables is loaded when one is asked for. */
  const saveTable = async (table: CsvTable, label: string) => {
    onClose();
    const { csvOmissions } = await import('../../core/formats');
    const out = csvOmissions(design, table);
    if (out.length > 0) onTable({ table, label, out });
    else saveFrom(api.exportUrl(variantId, table));
  };
  return [
    ...FORMATS.map(({ format, label }) => {
      const table = TABLES.find((t) => t === format);
      return table ? (
        <MenuItem key={format} onClick={() => void saveTable(table, label)}>
          Export: {label}
        </MenuItem>
      ) : (
        <MenuItem key={format} component="a" href={api.exportUrl(variantId, format)} download onClick={onClose}>
          Export: {label}
        </MenuItem>
      );
    }),
    ...(['svg', 'png'] as const).map((format) => (
      <MenuItem key={format} onClick={() => (onClose(), void savePicture(format))}>
        Export: Drawing ({format.toUpperCase()})
      </MenuItem>
    )),
  ];
}

interface NamingProps {
  readonly asking: 'copy' | 'rename';
  readonly current: { readonly id: string; readonly name: string };
  readonly go: (id: string) => void;
  readonly onClose: () => void;
}

function Naming({ asking, current, go, onClose }: NamingProps) {
  const { session, head, setHead } = useBench();
  return asking === 'copy' ? (
    <NameDialog
      title={`Copy variant ${current.name}`}
      label="Name of the new variant"
      initial={`${current.name} copy`}
      action="Copy"
      onSubmit={async (name) => {
        await session.settled();
        const next = await api.copyVariant(head.id, current.id, { name });
        setHead(next);
        go(next.variants.at(-1)!.id);
      }}
      onClose={onClose}
    />
  ) : (
    <NameDialog
      title="Rename variant"
      label="Name of the variant"
      initial={current.name}
      action="Rename"
      onSubmit={async (name) => setHead(await api.renameVariant(head.id, current.id, name))}
      onClose={onClose}
    />
  );
}
