'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useMemo } from 'react';
import type { ReactNode } from 'react';
import { treeTitle } from '../controls/tree-names';
import type { Ref } from '../session/view';
import { useBench, useSession } from '../session/context';
import type { Command } from '../session/commands';

interface Entry {
  readonly key: string;
  readonly group: string;
  readonly title: string;
  readonly hint: string;
  readonly run: () => void;
}

const MOST_SHOWN = 60;

/** Everything that can be found, group by group. */
function useEntries(commands: readonly Command[]): Entry[] {
  const { setView, select } = useBench();
  const design = useSession((s) => s.design);
  const trees = useSession((s) => s.solved.trees);
  return useMemo((): Entry[] => {
    const go = (ref: Ref) => () => select(ref);
    const names = new Map(design.switches.map((s) => [s.id, s.name]));
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
      ...design.switches.map((s) => ({
        key: s.id,
        group: 'Switches',
        title: s.name,
        hint: s.mac,
        run: go({ kind: 'switch', id: s.id }),
      })),
      ...design.hosts.map((h) => ({
        key: h.id,
        group: 'Hosts',
        title: h.name,
        hint: '',
        run: go({ kind: 'host', id: h.id }),
      })),
      ...design.ports.map((p) => ({
        key: p.id,
        group: 'Ports',
        title: `${names.get(p.switch)} ${p.name}`,
        hint: p.description ?? '',
        run: go({ kind: 'port', id: p.id }),
      })),
    ];
  }, [commands, design, trees, select, setView]);
}

/** The list stands below the field instead of floating over the page. */
const InPlace = ({ children }: { children?: unknown }) => <div>{children as ReactNode}</div>;

/** Every word that is typed is somewhere in an entry. */
function found(all: readonly Entry[], text: string): Entry[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return all.filter((e) => words.every((w) => `${e.title} ${e.hint}`.toLowerCase().includes(w))).slice(0, MOST_SHOWN);
}

/** One field that finds commands, trees, switches, hosts and ports. */
export function CommandSearch({ commands, onClose }: { commands: readonly Command[]; onClose: () => void }) {
  const entries = useEntries(commands);
  return (
    <Dialog
      open
      onClose={onClose}
      transitionDuration={0}
      fullWidth
      maxWidth="sm"
      sx={{ '& .MuiDialog-container': { alignItems: 'start', pt: '8vh' } }}
    >
      <Autocomplete
        open
        onClose={(_, reason) => reason === 'escape' && onClose()}
        options={entries}
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
            <span style={{ flex: 1 }}>{e.title}</span>
            <span className="mono quiet">{e.hint}</span>
          </li>
        )}
        renderInput={(params) => (
          <TextField {...params} autoFocus placeholder="A command, a tree, a switch, a port…" sx={{ p: 1.5 }} />
        )}
        slots={{ popper: InPlace }}
        slotProps={{
          listbox: { sx: { maxHeight: '52vh' } },
          paper: { sx: { border: 0, boxShadow: 'none' } },
        }}
      />
    </Dialog>
  );
}
