'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { keptLabels } from '../session/kept';
import type { Found } from '../session/kept';
import type { Left } from '../session/useLeftBehind';

const MOST = 12;

/** Offers what windows left that were closed before everything was stored. */
export function LeftDialog({ found, take, discard, postpone }: Omit<Left, 'left'> & { found: Found }) {
  const labels = keptLabels(found.kept);
  return (
    <Dialog open fullWidth maxWidth="xs" onClose={postpone}>
      <DialogTitle>A closed window left changes</DialogTitle>
      <DialogContent>
        <p>
          {labels.length === 1 ? 'This change was' : `These ${labels.length} changes were`} not stored on the server:
        </p>
        <ul>
          {labels.slice(0, MOST).map((label, i) => (
            <li key={i}>{label}</li>
          ))}
          {labels.length > MOST && <li className="quiet">and {labels.length - MOST} more</li>}
        </ul>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => discard(found)}>Discard</Button>
        <Button onClick={postpone}>Ask later</Button>
        <Button variant="contained" onClick={() => take(found)}>
          Apply
        </Button>
      </DialogActions>
    </Dialog>
  );
}
