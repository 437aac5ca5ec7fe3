'use client';
import { saveFile } from '../chart/picture';
import { MenuButton } from './MenuButton';

export interface SaveForm {
  readonly name: string;
  /** Media type of the file, and what its name ends with. */
  readonly type: string;
  readonly end: string;
  readonly write: () => string | Promise<string>;
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
  const choices = forms.map(({ name, write, type, end }) => ({
    name,
    onPick: () => void Promise.resolve(write()).then((text) => saveFile(new Blob([text], { type }), `${file}.${end}`)),
  }));
  return <MenuButton {...{ title, choices }} />;
}
