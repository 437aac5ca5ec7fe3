'use client';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { DropMenu } from './DropMenu';

export interface MenuChoice {
  readonly name: string;
  readonly onPick: () => void;
}

interface Props {
  /** What the button says, and what it is for. */
  readonly title: string;
  readonly hint?: string;
  readonly choices: readonly MenuChoice[];
}

/** A button that asks which. */
export function MenuButton({ title, hint, choices }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <button className="tool" aria-haspopup="menu" title={hint} onClick={(e) => setAnchor(e.currentTarget)}>
        {title}
      </button>
      <DropMenu at={anchor} onClose={() => setAnchor(null)}>
        {choices.map(({ name, onPick }) => (
          <MenuItem
            key={name}
            onClick={() => {
              setAnchor(null);
              onPick();
            }}
          >
            {name}
          </MenuItem>
        ))}
      </DropMenu>
    </>
  );
}
