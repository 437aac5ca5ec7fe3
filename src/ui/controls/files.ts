'use client';
/** Files from the disk, chosen or dropped on the page. */
import { useEffect, useState } from 'react';
import type { SourceFile } from '../../core/formats';

/** Files larger than this are refused by the server; saying so at once spares the wait. */
const LARGEST = 7_500_000;

export type ReadFiles =
  { readonly ok: true; readonly files: SourceFile[] } | { readonly ok: false; readonly sentence: string };

export async function readFiles(files: readonly File[]): Promise<ReadFiles> {
  const large = files.find((f) => f.size > LARGEST);
  if (large)
    return {
      ok: false,
      sentence: `${large.name} has ${Math.round(large.size / 1e6)} MB; up to ${LARGEST / 1e6} MB are accepted at once.`,
    };
  return { ok: true, files: await Promise.all(files.map(async (f) => ({ file: f.name, text: await f.text() }))) };
}

const holdsFiles = (event: DragEvent) => [...(event.dataTransfer?.types ?? [])].includes('Files');

/** Takes files that are dropped anywhere on the page; true while some are held over it. */
export function useFileDrop(onFiles: (files: File[]) => void): boolean {
  const [over, setOver] = useState(false);
  useEffect(() => {
    const onOver = (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const onLeave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const onDrop = (event: DragEvent) => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      setOver(false);
      onFiles([...(event.dataTransfer?.files ?? [])]);
    };
    window.addEventListener('dragover', onOver);
    window.addEventListener('dragleave', onLeave);
    window.addEventListener('drop', onDrop);
    return () => {
      window.removeEventListener('dragover', onOver);
      window.removeEventListener('dragleave', onLeave);
      window.removeEventListener('drop', onDrop);
    };
  }, [onFiles]);
  return over;
}
