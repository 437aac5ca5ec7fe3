/** Columns of settings that are read and typed alike: on or off, a number, a word out of few. */
import { setField } from '../../design';
import type { Edit } from '../../design';
import { choiceCell, numberCell, unlessFault, yesCell } from './column';
import type { CellEdits, Column } from './column';

interface Named {
  readonly id: string;
  readonly title: string;
  readonly also?: readonly string[];
  readonly width?: number;
}

/** Columns of one kind of element; the id of each is the field that it sets. */
export function settingColumns<E extends { readonly id: string }>(kind: 'switch' | 'port') {
  const set = (element: E, field: string, value: unknown): readonly Edit[] => [
    setField(kind, element.id, field as 'id', value),
  ];
  const valueOf = (element: E, field: string): unknown => element[field as keyof E];
  const chosen = (element: E, field: string, value: unknown): CellEdits =>
    unlessFault(value, (v) => set(element, field, v));
  return {
    yes: ({ width = 84, ...named }: Named): Column<E> => ({
      ...named,
      width,
      choices: ['', 'yes'],
      text: (_, e) => (valueOf(e, named.id) ? 'yes' : ''),
      set: (_, e, text) => chosen(e, named.id, yesCell(text)),
    }),
    /** Where a `no` is more than nothing said: it goes before what the switch gives. */
    yesOrNo: ({ width = 84, ...named }: Named): Column<E> => ({
      ...named,
      width,
      choices: ['', 'yes', 'no'],
      text: (_, e) => ({ true: 'yes', false: 'no' })[String(valueOf(e, named.id))] ?? '',
      set: (_, e, text) => {
        const value = yesCell(text);
        return chosen(e, named.id, value === null && text.trim() !== '' ? false : value);
      },
    }),
    number: ({ width = 72, ...named }: Named, usual?: number): Column<E> => ({
      ...named,
      width,
      numeric: true,
      mono: true,
      text: (_, e) => String(valueOf(e, named.id) ?? usual ?? ''),
      sort: (_, e) => Number(valueOf(e, named.id) ?? usual ?? -1),
      set: (_, e, text) => {
        const value = numberCell(text);
        return set(e, named.id, value === usual ? null : value);
      },
    }),
    choice: ({ width = 84, ...named }: Named, what: string, legal: readonly string[]): Column<E> => ({
      ...named,
      width,
      choices: ['', ...legal],
      text: (_, e) => String(valueOf(e, named.id) ?? ''),
      set: (_, e, text) => chosen(e, named.id, choiceCell(what, text, legal)),
    }),
  };
}
