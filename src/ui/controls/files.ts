'use client';
/** Files from the disk, chosen or dropped on the page. */
import { useEffect, useState } from 'react';
import type { SourceFile } from '../../core/formats';

/** Files larger than this are refused by the server; saying so at once spares the wait. */
const LARGEST = 7_500_000;

export type ReadFiles =
  { readonly ok: true; readonly files: SourceFile[] } | { readonly ok: false; readonly sentence: string };

/** Paths of files that were dropped with the folder that they are in. */
const droppedPaths = new WeakMap<File, string>();

/** A file with the folders that it was chosen or dropped with. */
export const pathOf = (file: File): string => droppedPaths.get(file) ?? (file.webkitRelativePath || file.name);

/** What systems keep in folders for themselves begins with a dot, and is not meant here. */
export const isMeant = (file: File): boolean => !file.name.startsWith('.');

const filesIn = (folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> =>
  new Promise((resolve, reject) => {
    const reader = folder.createReader();
    const found: FileSystemEntry[] = [];
    // It gives a part at a time, and nothing when it is through.
    const read = () =>
      reader.readEntries((part) => (part.length === 0 ? resolve(found) : (found.push(...part), read())), reject);
    read();
  });

const isFolder = (entry: FileSystemEntry): entry is FileSystemDirectoryEntry => entry.isDirectory;

/** The files of an entry, those of folders in it too. */
async function filesOf(entry: FileSystemEntry): Promise<File[]> {
  if (isFolder(entry)) return (await Promise.all((await filesIn(entry)).map(filesOf))).flat();
  const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
  droppedPaths.set(file, entry.fullPath.replace(/^\//, ''));
  return [file];
}

/** What was dropped, folders opened. */
async function dropped({ items, files }: DataTransfer): Promise<File[]> {
  const entries = [...items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const plain = [...files];
  const found = entries.some(isFolder) ? (await Promise.all(entries.map(filesOf))).flat() : plain;
  return found.filter(isMeant);
}

export async function readFiles(files: readonly File[]): Promise<ReadFiles> {
  const large = files.find((f) => f.size > LARGEST);
  if (large)
    return {
      ok: false,
      sentence: `${large.name} has ${Math.round(large.size / 1e6)} MB; up to ${LARGEST / 1e6} MB are accepted at once.`,
    };
  return { ok: true, files: await Promise.all(files.map(async (f) => ({ file: pathOf(f), text: await f.text() }))) };
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
      if (event.dataTransfer) void dropped(event.dataTransfer).then(onFiles);
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
