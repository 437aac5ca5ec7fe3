'use client';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { later } from '../controls/later';
import type { Command } from '../session/commands';
import { SEARCH_HINT } from './search-props';
import type { SearchProps } from './search-props';

/** Takes what is typed while the list is still on its way. */
const TypedAhead = ({ text, onText, onEnter }: SearchProps) => (
  <TextField
    autoFocus
    fullWidth
    placeholder={SEARCH_HINT}
    sx={{ p: 1.5 }}
    value={text}
    onChange={(e) => onText(e.target.value)}
    onKeyDown={(e) => e.key === 'Enter' && onEnter()}
  />
);

const SearchField = later<SearchProps>(() => import('./SearchField').then((m) => m.SearchField), {
  meanwhile: TypedAhead,
});

/** One field that finds commands, trees, things of the design, settings and words. */
export function CommandSearch({ commands, onClose }: { commands: readonly Command[]; onClose: () => void }) {
  const [text, onText] = useState('');
  const [entered, setEntered] = useState(false);
  const onEnter = () => setEntered(true);
  return (
    <Dialog
      open
      onClose={onClose}
      transitionDuration={0}
      fullWidth
      maxWidth="sm"
      sx={{ '& .MuiDialog-container': { alignItems: 'start', pt: '8vh' } }}
    >
      <SearchField {...{ commands, text, onText, entered, onEnter, onClose }} />
    </Dialog>
  );
}
