'use client';
import Checkbox from '@mui/material/Checkbox';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { useBench, useSession } from '../session/context';
import { layerAction, layersOf, layerWords } from '../session/notes';
import { DropMenu } from './DropMenu';

/** Which layers of notes are shown; nothing in a design without notes. */
export function NotesMenu() {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (design.notes.length === 0) return null;
  return (
    <>
      <button
        className="tool"
        aria-haspopup="menu"
        title="Layers of notes that are shown"
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        Notes <span aria-hidden="true">▾</span>
      </button>
      <DropMenu at={anchor} onClose={() => setAnchor(null)}>
        {layersOf(design).map((layer) => {
          const { label, edits } = layerAction(layer);
          return (
            <MenuItem
              key={layer.name}
              role="menuitemcheckbox"
              aria-checked={layer.shown === 'some' ? 'mixed' : layer.shown === 'all'}
              onClick={() => edit(label, edits)}
            >
              <Checkbox
                size="small"
                sx={{ p: 0, pr: 1 }}
                tabIndex={-1}
                checked={layer.shown === 'all'}
                indeterminate={layer.shown === 'some'}
              />
              {layerWords(layer.name)}&ensp;<span className="quiet mono">{layer.notes.length}</span>
            </MenuItem>
          );
        })}
      </DropMenu>
    </>
  );
}
