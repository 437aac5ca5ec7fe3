'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { saveFile } from '../chart/picture';

export interface SaveForm {
  readonly name: string;
  /** Media type of the file, and what its name ends with. */
  readonly type: string;
  readonly end: string;
  readonly write: () => string;
}

interface Props {
  /** What the button says. */
  readonly title: string;
  /** Name of the file without its end. */
  readonly file: string;
  readonly forms: readonly SaveForm[];
}

/** One thing as a file, in any of its forms. */
export function SaveMenu({ title, file, forms }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const save = ({ write, type, end }: SaveForm) => {
    setAnchor(null);
    saveFile(new Blob([write()], { type }), `${file}.${end}`);
  };
  return (
    <>
      <button className="tool" aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        {title}
      </button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {forms.map((form) => (
          <MenuItem key={form.end} onClick={() => save(form)}>
            {form.name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
