'use client';
import Divider from '@mui/material/Divider';
import ListItemText from '@mui/material/ListItemText';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { NameDialog } from '../controls/NameDialog';
import { asPng, pictureOf, saveFile } from '../chart/picture';
import { api } from '../session/api';
import { viewAddress } from '../session/view';
import { useBench } from '../session/context';
import { sayNext } from '../session/flash';

const FORMATS = [
  { format: 'json', label: 'Design (JSON)' },
  { format: 'switches', label: 'Switches (CSV)' },
  { format: 'links', label: 'Links (CSV)' },
  { format: 'vlans', label: 'VLANs (CSV)' },
  { format: 'graphml', label: 'Graph (GraphML)' },
  { format: 'topology', label: 'Topology (RFC 8345 JSON)' },
];

/** Switches between variants of the design, copies, renames and deletes them, and exports the one in view. */
export function VariantMenu() {
  const { session, head, setHead, variantId, view, say, stage } = useBench();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [asking, setAsking] = useState<'copy' | 'rename' | null>(null);
  const router = useRouter();
  const current = head.variants.find((v) => v.id === variantId) ?? head.variants[0]!;
  const close = () => setAnchor(null);
  const go = (id: string) => router.push(viewAddress(head.id, stage, id, view));

  const savePicture = async (format: 'svg' | 'png') => {
    close();
    const chart = document.querySelector<SVGSVGElement>('svg.chart');
    if (!chart) return say({ text: 'There is no drawing to save yet.' });
    try {
      const picture = await pictureOf(chart);
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
    close();
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
      <Menu open={anchor !== null} anchorEl={anchor} onClose={close}>
        {head.variants.map((v) => (
          <MenuItem
            key={v.id}
            selected={v.id === current.id}
            onClick={() => {
              close();
              if (v.id !== current.id) void session.settled().then(() => go(v.id));
            }}
          >
            <ListItemText primary={v.name} />
          </MenuItem>
        ))}
        <Divider />
        <MenuItem onClick={() => (close(), setAsking('copy'))}>Copy this variant…</MenuItem>
        <MenuItem onClick={() => (close(), setAsking('rename'))}>Rename this variant…</MenuItem>
        <MenuItem disabled={head.variants.length === 1} onClick={() => void remove()}>
          Delete this variant
        </MenuItem>
        <Divider />
        {FORMATS.map(({ format, label }) => (
          <MenuItem key={format} component="a" href={api.exportUrl(variantId, format)} download onClick={close}>
            Export: {label}
          </MenuItem>
        ))}
        {(['svg', 'png'] as const).map((format) => (
          <MenuItem key={format} onClick={() => void savePicture(format)}>
            Export: Drawing ({format.toUpperCase()})
          </MenuItem>
        ))}
      </Menu>
      {asking === 'copy' && (
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
          onClose={() => setAsking(null)}
        />
      )}
      {asking === 'rename' && (
        <NameDialog
          title="Rename variant"
          label="Name of the variant"
          initial={current.name}
          action="Rename"
          onSubmit={async (name) => setHead(await api.renameVariant(head.id, current.id, name))}
          onClose={() => setAsking(null)}
        />
      )}
    </>
  );
}
