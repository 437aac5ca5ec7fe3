'use client';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useEffect, useMemo } from 'react';
import type { ReactNode } from 'react';
import { TABLES } from '../../core/editing/tables';
import { GLOSSARY } from '../../core/messages';
import type { Term } from '../../core/messages';
import { treeTitle } from '../controls/tree-names';
import { askForTable } from '../session/commands';
import type { Command, TablePlace } from '../session/commands';
import { useBench, useSession } from '../session/context';
import type { SessionState } from '../session/session';
import type { Ref } from '../session/view';
import { SEARCH_HINT } from './search-props';
import type { SearchProps } from './search-props';
import { found } from './found';
import type { Entry } from './found';
import styles from './SearchField.module.css';

type Design = SessionState['design'];

/** Things of the design, by kind. */
function things(design: Design, select: (ref: Ref) => void): Entry[] {
  const go = (kind: Ref['kind'], id: string) => () => select({ kind, id });
  const names = new Map(design.switches.map((s) => [s.id, s.name]));
  const of = (kind: Ref['kind'], group: string, id: string, title: string, hint = ''): Entry => ({
    key: id,
    group,
    title,
    hint,
    run: go(kind, id),
  });
  return [
    ...design.switches.map((s) => of('switch', 'Switches', s.id, s.name, s.mac)),
    ...design.hosts.map((h) => of('host', 'Hosts', h.id, h.name)),
    ...design.segments.map((s) => of('segment', 'Segments', s.id, s.name)),
    ...design.notes.map((n) => of('note', 'Notes', n.id, n.text, n.layer ?? '')),
    ...design.bundles.map((b) => of('bundle', 'Bundles', b.id, `${names.get(b.switch)} ${b.name}`)),
    ...design.ports.map((p) => of('port', 'Ports', p.id, `${names.get(p.switch)} ${p.name}`, p.description ?? '')),
  ];
}

/** Columns of the tables, where settings are made for many at once. */
const settingsOf = (open: (place: TablePlace) => void): Entry[] =>
  TABLES.flatMap((table) =>
    table.columns
      .filter((c) => c.set)
      .map((c) => ({
        key: `${table.id} ${c.id}`,
        group: 'Settings',
        title: `${c.title.replace(/, .*$/, '')} of ${table.title.toLowerCase()}`,
        hint: 'table',
        also: (c.also ?? []).join(' '),
        run: () => open({ table: table.id, column: c.id }),
      })),
  );

/** Everything that can be found, group by group. */
function useEntries(commands: readonly Command[]): Entry[] {
  const { setView, select, go, say, stage } = useBench();
  const design = useSession((s) => s.design);
  const trees = useSession((s) => s.solved.trees);
  return useMemo((): Entry[] => {
    const openTable = (place: TablePlace) => {
      if (stage !== 'cabling') go('cabling');
      askForTable(place);
    };
    return [
      ...commands
        .filter((c) => c.id !== 'search')
        .map((c) => ({ key: c.id, group: 'Commands', title: c.title, hint: c.keys.join('  '), run: c.run })),
      ...trees.map(({ tree }) => ({
        key: tree.id,
        group: 'Trees',
        title: treeTitle(tree),
        hint: '',
        run: () => setView({ tree: tree.id }),
      })),
      ...things(design, select),
      ...settingsOf(openTable),
      ...Object.values<Term>(GLOSSARY).map(({ term, sentence, clause }) => ({
        key: term,
        group: 'Words',
        title: term,
        hint: sentence,
        run: () => say({ text: `${term}: ${sentence}${clause ? ` (${clause})` : ''}` }),
      })),
    ];
  }, [commands, design, trees, select, setView, go, say, stage]);
}

/** The list stands below the field instead of floating over the page. */
const InPlace = ({ children }: { children?: unknown }) => <div>{children as ReactNode}</div>;

/** The field with the list of what it finds. */
export function SearchField({ commands, text, onText, entered, onClose }: SearchProps) {
  const entries = useEntries(commands);
  useEffect(() => {
    const [first] = entered ? found(entries, text) : [];
    if (!first) return;
    onClose();
    first.run();
    // Once, when it has come.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return (
    <Autocomplete
      open
      onClose={(_, reason) => reason === 'escape' && onClose()}
      options={entries}
      inputValue={text}
      // A field that has just come empties itself, and what was typed before it came would be gone.
      onInputChange={(_, typed, reason) => reason !== 'reset' && onText(typed)}
      groupBy={(e) => e.group}
      getOptionLabel={(e) => e.title}
      getOptionKey={(e) => `${e.group} ${e.key}`}
      filterOptions={(all, { inputValue }) => found(all, inputValue)}
      autoHighlight
      onChange={(_, entry) => {
        onClose();
        entry?.run();
      }}
      noOptionsText="No results"
      renderOption={({ key, ...props }, e) => (
        <li key={key} {...props}>
          <span className={styles.title}>{e.title}</span>
          <span className={e.group === 'Words' ? styles.sentence : `mono ${styles.hint}`}>{e.hint}</span>
        </li>
      )}
      renderInput={(params) => <TextField {...params} autoFocus placeholder={SEARCH_HINT} sx={{ p: 1.5 }} />}
      slots={{ popper: InPlace }}
      slotProps={{
        listbox: { sx: { maxHeight: '52vh' } },
        paper: { sx: { border: 0, boxShadow: 'none' } },
      }}
    />
  );
}
