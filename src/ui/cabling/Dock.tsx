'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { bundleById, linkAt, linkById, linksOfHost, portsOf, removeAll } from '../../core/design';
import type { Design } from '../../core/design';
import { TABLES, tableById, writeRows } from '../../core/editing/tables';
import type { CellRefusal, RowText, Table, TableId } from '../../core/editing/tables';
import { useRowMarks } from '../controls/useRowMarks';
import { DataTable } from '../table/DataTable';
import type { TableHandle } from '../table/DataTable';
import type { TablePlace } from '../session/commands';
import type { Ref } from '../session/view';
import { useBench } from '../session/context';
import { Neighbours } from './Neighbours';
import { newId } from '../session/new-id';
import type { Cabling } from './useCabling';
import type { NeighbourCheck } from './useNeighbours';
import { count } from '../../core/standard';
import styles from './Dock.module.css';

export type Tab = TableId | 'neighbours';

/** Rows of a table that a selection in the drawing speaks of. */
function rowsFor(design: Design, table: Table, selection: readonly Ref[]): Set<string> {
  const ids = new Set<string>();
  for (const { kind, id } of selection) {
    if (kind === table.kind) ids.add(id);
    const ports =
      kind === 'switch'
        ? portsOf(design, id).map((p) => p.id)
        : kind === 'port'
          ? [id]
          : kind === 'bundle'
            ? (bundleById(design, id)?.members ?? [])
            : kind === 'link'
              ? [linkById(design, id)?.a, linkById(design, id)?.b].flatMap((e) => (e && 'port' in e ? [e.port] : []))
              : [];
    if (table.kind === 'port') for (const port of ports) ids.add(port);
    if (table.kind === 'link') {
      for (const port of ports) if (kind !== 'link' && linkAt(design, port)) ids.add(linkAt(design, port)!.id);
      if (kind === 'host') for (const link of linksOfHost(design, id)) ids.add(link.id);
    }
  }
  return ids;
}

interface Report {
  readonly table: TableId;
  readonly taken: number;
  readonly refused: readonly CellRefusal[];
  /** Headings that the table does not have. */
  readonly unknown: readonly string[];
}

/** What a table has selected and shows, and what is written to it. */
function useTableEdits(cabling: Cabling, table: Table | null, confined: boolean) {
  const { say } = useBench();
  const { design, selection, selectMany, run, view, setView } = cabling;
  const [report, setReport] = useState<Report | null>(null);

  const selected = useMemo(() => {
    if (!table) return new Set<string>();
    if (table.kind === 'vlan') return new Set(design.vlans.filter((v) => v.number === view.vlan).map((v) => v.id));
    return new Set(selection.filter((r) => r.kind === (table.kind as string)).map((r) => r.id));
  }, [table, selection, design.vlans, view.vlan]);
  const only = useMemo(
    () =>
      confined && table && selection.length > 0 && table.kind !== 'vlan' ? rowsFor(design, table, selection) : null,
    [confined, table, design, selection],
  );

  const onSelect = (ids: readonly string[]) => {
    if (!table || only || table.kind === 'demand') return;
    if (table.kind === 'vlan') {
      const [one] = ids;
      if (ids.length === 1) setView({ vlan: design.vlans.find((v) => v.id === one)?.number ?? null });
    } else selectMany(ids.map((id) => ({ kind: table.kind as Ref['kind'], id })));
  };
  const onWrite = (rows: readonly RowText[], what: string, unknown: readonly string[] = []) => {
    if (!table) return;
    const change = writeRows(design, table, rows, newId);
    const made = change.created.length;
    const label =
      made > 0 && change.changed === 0
        ? `Add ${made === 1 ? `a ${table.one}` : `${made} ${table.title.toLowerCase()}`}`
        : `${what} in ${table.title}`;
    if (change.edits.length > 0) run({ label, edits: change.edits }, change.design);
    if (change.refused.length === 1 && rows.length === 1) {
      say({ text: change.refused[0]!.sentence, alarm: true });
      setReport(null);
    } else {
      const { refused } = change;
      const clean = refused.length === 0 && unknown.length === 0;
      setReport(clean ? null : { table: table.id, taken: made + change.changed, refused, unknown });
    }
  };
  const onRemove = (ids: readonly string[]) => {
    if (!table || ids.length === 0) return;
    const edits = removeAll(
      design,
      ids.map((id) => ({ kind: table.kind, id })),
    );
    run({
      label: `Delete ${ids.length === 1 ? `a ${table.one}` : `${ids.length} ${table.title.toLowerCase()}`}`,
      edits,
    });
  };
  return { selected, only, onSelect, onWrite, onRemove, report, setReport };
}

interface Props {
  cabling: Cabling;
  tab: Tab;
  onTab: (tab: Tab) => void;
  neighbours: NeighbourCheck;
  onFiles: () => void;
  /** A column that was asked for. */
  wanted: TablePlace | null;
}

/** The tables beside the drawing. */
export function Dock({ cabling, tab, onTab, neighbours, onFiles, wanted }: Props) {
  const [filter, setFilter] = useState('');
  const marks = useRowMarks();
  const [confined, setConfined] = useState(false);
  const handle = useRef<TableHandle>(null);
  const table = tab === 'neighbours' ? null : tableById(tab);
  const { design } = cabling;
  const { report, setReport, onRemove, ...edits } = useTableEdits(cabling, table, confined);
  useEffect(() => {
    const first = table?.id === wanted?.table ? table?.rows(design)[0] : undefined;
    if (first && wanted) handle.current?.goTo(first.id, wanted.column);
    // Once for each time that it is asked for.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [wanted, table?.id]);
  useEffect(() => setReport((was) => (was && was.table !== tab ? null : was)), [tab, setReport]);

  return (
    <section className="dock" aria-label="Tables">
      <header className={styles.dockHead}>
        <Tabs cabling={cabling} tab={tab} onTab={onTab} neighbours={neighbours} />
        <span className="grow" />
        {table && (
          <>
            <label className="check small">
              <input type="checkbox" checked={confined} onChange={(e) => setConfined(e.target.checked)} /> of the
              selection only
            </label>
            <input
              className="strip-filter"
              placeholder="Filter, e.g. gate or tier:core"
              aria-label={`Filter ${table.title}`}
              value={filter}
              onChange={(e) => setFilter(e.target.value)}
            />
            <button className="tool" onClick={() => onRemove(handle.current?.chosen() ?? [])}>
              Delete rows
            </button>
          </>
        )}
      </header>
      {report && report.table === tab && <Refusals report={report} table={table} onClose={() => setReport(null)} />}
      {table ? (
        <DataTable
          key={table.id}
          table={table}
          design={design}
          filter={filter}
          {...edits}
          onRemove={onRemove}
          handle={handle}
          marks={marks}
        />
      ) : (
        <Neighbours cabling={cabling} check={neighbours} onFiles={onFiles} />
      )}
    </section>
  );
}

/** The tables with their numbers of rows, and the neighbour check with what differs. */
function Tabs({ cabling: { design }, tab, onTab, neighbours }: Omit<Props, 'onFiles' | 'wanted'>) {
  const differing = neighbours.findings?.filter((f) => f.verdict !== 'as drawn').length ?? 0;
  return (
    <div role="tablist" aria-label="Tables of the design" className="tabs">
      {TABLES.map((t) => (
        <button key={t.id} role="tab" aria-selected={tab === t.id} className="tab" onClick={() => onTab(t.id)}>
          {t.title} <span className="mono quiet">{t.rows(design).length}</span>
        </button>
      ))}
      <button role="tab" aria-selected={tab === 'neighbours'} className="tab" onClick={() => onTab('neighbours')}>
        Neighbour check {differing > 0 && <span className="mono alarm">{differing}</span>}
      </button>
    </div>
  );
}

/** Cells and rows that were not taken, each with its reason. */
function Refusals({ report, table, onClose }: { report: Report; table: Table | null; onClose: () => void }) {
  return (
    <div className="report" role="alert">
      <p>
        {report.refused.length > 0 && (
          <>
            <b>{count(report.refused.length, 'cell or row was', 'cells or rows were')} not taken</b>,{' '}
          </>
        )}
        {count(report.taken, 'row was', 'rows were')}
        {report.refused.length === 0 && ' taken'}. Undo reverts all of it.{' '}
        {report.unknown.length > 0 && (
          <>
            <b>Left out</b>, since this table has no such column: {report.unknown.join(', ')}.{' '}
          </>
        )}
        <button className="plain" onClick={onClose}>
          <u>Close</u>
        </button>
      </p>
      <ul>
        {report.refused.slice(0, 200).map((r, i) => (
          <li key={i}>
            <b className="mono">
              row {r.row + 1}
              {r.column ? `, ${table?.columns.find((c) => c.id === r.column)?.title ?? r.column}` : ''}
            </b>
            : {r.sentence}
          </li>
        ))}
      </ul>
    </div>
  );
}
