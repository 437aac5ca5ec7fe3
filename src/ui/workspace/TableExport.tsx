'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { CsvTable } from '../../core/formats';
import { api } from '../session/api';
import { useBench } from '../session/context';

export interface PartialTable {
  readonly table: CsvTable;
  readonly label: string;
  /** What of the design is not in it. */
  readonly out: readonly string[];
}

/** What a table leaves out, before it is saved; the design as JSON leaves out nothing. */
export function TableExport({ table, label, out, onClose }: PartialTable & { onClose: () => void }) {
  const { variantId } = useBench();
  const save = (format: string, words: string, main: boolean) => (
    <Button
      component="a"
      variant={main ? 'contained' : 'text'}
      href={api.exportUrl(variantId, format)}
      download
      onClick={onClose}
    >
      {words}
    </Button>
  );
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>Export: {label}</DialogTitle>
      <DialogContent>
        <p>This table leaves out:</p>
        <ul>
          {out.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
        <p className="quiet">The design as JSON holds everything.</p>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        {save('json', 'Save the design (JSON)', false)}
        {save(table, 'Save the table', true)}
      </DialogActions>
    </Dialog>
  );
}
