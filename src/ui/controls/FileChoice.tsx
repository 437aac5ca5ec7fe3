'use client';
import Button from '@mui/material/Button';
import { useRef } from 'react';
import type { ChangeEvent } from 'react';

/** A button for files of any kind that can be read. */
export function FileChoice({ chosen, onFiles }: { chosen: number; onFiles: (files: File[]) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const onChange = (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])];
    if (files.length > 0) onFiles(files);
    event.target.value = '';
  };
  return (
    <div className="file-row">
      <span>Files</span>
      <span>
        <Button onClick={() => field.current?.click()}>{chosen === 0 ? 'Choose files…' : 'More files…'}</Button>
        <span className="quiet"> or drop them on the page</span>
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
