'use client';
import type { ChangeEvent } from 'react';

/** One field for files of any kind that can be read. */
export function FileChoice({ onFiles }: { onFiles: (files: File[]) => void }) {
  const onChange = (event: ChangeEvent<HTMLInputElement>) => {
    const files = [...(event.target.files ?? [])];
    if (files.length > 0) onFiles(files);
    event.target.value = '';
  };
  return (
    <label className="file-row">
      <span>Files</span>
      <input
        type="file"
        multiple
        aria-label="Files"
        accept=".json,.csv,.tsv,.txt,.graphml,.xml,application/json,text/csv"
        onChange={onChange}
      />
    </label>
  );
}
