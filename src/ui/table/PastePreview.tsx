'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import type { Design } from '../../core/design';
import { changesOf } from '../../core/editing/tables';
import type { BlockRows, RowText, Table } from '../../core/editing/tables';
import { count } from '../../core/standard';
import { PreviewTable } from './PreviewTable';

interface Props {
  readonly table: Table;
  readonly design: Design;
  readonly pasted: BlockRows;
  readonly onTake: (rows: readonly RowText[]) => void;
  readonly onClose: () => void;
}

/** What a paste would change, before it gives other names to what is there. */
export function PastePreview({ table, design, pasted: { rows, unknown }, onTake, onClose }: Props) {
  const changes = changesOf(design, table, rows);
  const fresh = rows.filter((r) => r.id === null).length;
  const named = changes.filter((cells) => cells.some((c) => table.naming.includes(c.column)));
  const titles = table.columns.filter(
    (c) => table.naming.includes(c.id) && named.some((n) => n.some((x) => x.column === c.id)),
  );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <DialogTitle>Paste over {count(rows.length - fresh, 'row')}?</DialogTitle>
      <DialogContent>
        <p>
          <b>{titles.map((c) => c.title).join(', ')}</b> of{' '}
          {count(named.length, 'row that is there', 'rows that are there')} would change.{' '}
          {fresh > 0 && `${count(fresh, 'row is', 'rows are')} new. `}
          <span className="quiet">
            To change rows by their names instead, put a heading above the cells, such as{' '}
            <span className="mono">{table.columns.find((c) => table.naming.includes(c.id))!.title}</span>.
          </span>
        </p>
        {unknown.length > 0 && (
          <p className="quiet">Left out, since this table has no such column: {unknown.join(', ')}.</p>
        )}
        <ChangedRows {...{ table, rows, changes }} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button onClick={() => onTake(rows.map((r) => ({ ...r, id: null })))}>
          Add {count(rows.length, 'new row')}
        </Button>
        <Button variant="contained" onClick={() => onTake(rows)}>
          Change the rows
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** The rows as pasted; where one changes a cell, what stands there today is struck. */
function ChangedRows({
  table,
  rows,
  changes,
}: {
  table: Table;
  rows: readonly RowText[];
  changes: ReturnType<typeof changesOf>;
}) {
  const ids = new Set(rows.flatMap((r) => [...r.cells.keys()]));
  const columns = table.columns.filter((c) => ids.has(c.id));
  return (
    <PreviewTable
      label="What changes"
      columns={columns.map((c) => c.title)}
      rows={rows}
      line={(row, i) => ({
        number: row.id === null ? 'new' : i + 1,
        cells: columns.map((c) => {
          const before = changes[i]!.find((x) => x.column === c.id)?.before;
          return (
            <>
              {before && <s>{before}</s>} {row.cells.get(c.id)}
            </>
          );
        }),
      })}
    />
  );
}
