'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';

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
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
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
      </Menu>
    </>
  );
}
