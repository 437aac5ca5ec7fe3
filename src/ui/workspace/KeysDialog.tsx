'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { Command } from '../session/commands';
import styles from './KeysDialog.module.css';

/** Keys of tables, which are no commands. */
const IN_TABLES: readonly (readonly [string, string])[] = [
  ['Enter', 'Edit the cell, or end the edit and go down'],
  ['F2', 'Edit the cell'],
  ['Ctrl+Enter', 'End the edit in every selected cell'],
  ['Ctrl+D', 'Fill down'],
  ['Ctrl+A', 'Select the whole table'],
  ['Ctrl+C', 'Copy cells; a spreadsheet takes them'],
  ['Ctrl+V', 'Paste cells; a heading row says which columns they are'],
  ['Delete', 'Clear cells'],
  ['Ctrl+Delete', 'Delete rows'],
];

function Keys({ title, rows }: { title: string; rows: readonly (readonly [string, string])[] }) {
  return (
    <section>
      <h3>{title}</h3>
      <dl className={styles.keys}>
        {rows.map(([key, what]) => (
          <div key={`${key} ${what}`}>
            <dt>
              {key.split('  ').map((one) => (
                <kbd key={one} className="key">
                  {one}
                </kbd>
              ))}
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** Every key that does something on the screen in view. */
export function KeysDialog({
  commands,
  stage,
  onClose,
}: {
  commands: readonly Command[];
  stage: string;
  onClose: () => void;
}) {
  const rows = commands.filter((c) => c.keys.length > 0).map((c) => [c.keys.join('  '), c.title] as const);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <DialogTitle>Keys of this screen</DialogTitle>
      <DialogContent>
        <div className={styles.columns}>
          <Keys title="Commands" rows={rows} />
          {stage === 'cabling' && <Keys title="In tables" rows={IN_TABLES} />}
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
