'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import type { ChangePlan } from '../../core/plan';
import { planCsv, planHtml, planMarkdown, planSettings } from '../../core/report';
import type { SheetOptions } from '../../core/report';
import { saveFile } from '../chart/picture';

const FORMS = [
  { name: 'To print (HTML)', type: 'text/html', end: 'html', write: planHtml },
  { name: 'Markdown', type: 'text/markdown', end: 'md', write: planMarkdown },
  {
    name: 'Settings by device (text)',
    type: 'text/plain',
    end: 'txt',
    write: (plan: ChangePlan) => planSettings(plan),
  },
  { name: 'Table (CSV)', type: 'text/csv', end: 'csv', write: (plan: ChangePlan) => planCsv(plan) },
] as const;

interface Props extends Pick<SheetOptions, 'title'> {
  readonly plan: ChangePlan;
}

/** The work sheet as a file. */
export function SaveSheet({ plan, title }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const save = (form: (typeof FORMS)[number]) => {
    setAnchor(null);
    const text = form.write(plan, { title, date: new Date().toISOString().slice(0, 10) });
    saveFile(new Blob([text], { type: form.type }), `plan ${title.replaceAll('→', 'to')}.${form.end}`);
  };
  return (
    <>
      <button className="tool" onClick={(e) => setAnchor(e.currentTarget)}>
        Work sheet…
      </button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {FORMS.map((form) => (
          <MenuItem key={form.end} onClick={() => save(form)}>
            {form.name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
