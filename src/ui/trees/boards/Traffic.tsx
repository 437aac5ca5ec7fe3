'use client';
import { useRef, useState } from 'react';
import { count } from '../../../core/standard';
import { removeAll } from '../../../core/design';
import { DEMANDS, writeRows } from '../../../core/editing/tables';
import type { RowText, Table } from '../../../core/editing/tables';
import type { Loads } from '../../../core/analysis';
import { newId } from '../../session/new-id';
import { useBench, useSession } from '../../session/context';
import { DataTable } from '../../table/DataTable';
import type { TableHandle } from '../../table/DataTable';

const NONE: ReadonlySet<string> = new Set();

/** The table of offered load, typed or pasted, with what gets nowhere. */
export function Traffic({ lost }: Pick<Loads, 'lost'>) {
  const { edit, say } = useBench();
  const design = useSession((s) => s.design);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(NONE);
  const handle = useRef<TableHandle>(null);
  const table = DEMANDS as unknown as Table;
  const onWrite = (rows: readonly RowText[]) => {
    const change = writeRows(design, table, rows, newId);
    if (change.edits.length > 0) edit('Traffic', change.edits, { from: design, to: change.design });
    const [first] = change.refused;
    if (first)
      say({
        text:
          change.refused.length === 1
            ? first.sentence
            : `${count(change.refused.length, 'row was', 'rows were')} refused. ${first.sentence}`,
        alarm: true,
      });
  };
  return (
    <div className="traffic">
      {lost.length > 0 && (
        <p className="alarm small">
          {lost.length} of {count(design.demands.length, 'demand')} {lost.length === 1 ? 'has' : 'have'} no path:{' '}
          {lost[0]!.sentence}
        </p>
      )}
      <DataTable
        handle={handle}
        table={table}
        design={design}
        filter=""
        only={null}
        selected={chosen}
        onSelect={(ids) => setChosen(new Set(ids))}
        onWrite={onWrite}
        onRemove={(ids) =>
          edit(
            `Delete ${ids.length === 1 ? 'a demand' : `${ids.length} demands`}`,
            removeAll(
              design,
              ids.map((id) => ({ kind: 'demand', id })),
            ),
          )
        }
      />
    </div>
  );
}
