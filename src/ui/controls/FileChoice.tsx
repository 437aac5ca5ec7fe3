'use client';
import Button from '@mui/material/Button';
import { useRef } from 'react';
import type { ChangeEvent } from 'react';
import { isMeant } from './files';

/** A button for files of any kind that can be read. */
export function FileChoice({ chosen, onFiles }: { chosen: number; onFiles: (files: File[]) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const onChange = (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])].filter(isMeant);
    if (files.length > 0) onFiles(files);
    event.target.value = '';
  };
  return (
    <div className="file-row">
      <span>Files</span>
      <span>
        <Button onClick={() => field.current?.click()}>{chosen === 0 ? 'Choose files…' : 'More files…'}</Button>{' '}
        <Button onClick={() => folder.current?.click()}>Choose a folder…</Button>
        <span className="quiet"> or drop files or folders on the page</span>
        <input
          ref={(input) => {
            folder.current = input;
            // Known to every browser, and to no type.
            input?.setAttribute('webkitdirectory', '');
          }}
          className="visually-hidden"
          type="file"
          tabIndex={-1}
          aria-label="Folder"
          onChange={onChange}
        />
        <input
          ref={field}
          className="visually-hidden"
          type="file"
          multiple
          tabIndex={-1}
          aria-label="Files"
          accept=".json,.csv,.tsv,.txt,.graphml,.xml,application/json,text/csv"
          onChange={onChange}
        />
      </span>
    </div>
  );
}
