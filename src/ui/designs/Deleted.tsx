'use client';
import type { DeletedDesign } from '../session/types';
import { Ago } from '../controls/Ago';

interface Props {
  readonly deleted: readonly DeletedDesign[];
  readonly onRestore: (row: DeletedDesign) => void;
  readonly onPurge: (row: DeletedDesign) => void;
}

/** Designs that were deleted in the last 30 days. */
export function Deleted({ deleted, onRestore, onPurge }: Props) {
  if (deleted.length === 0) return null;
  return (
    <details className="deleted">
      <summary>Deleted designs ({deleted.length}): kept for 30 days</summary>
      {deleted.map((row) => (
        <div className="row" key={row.id}>
          <span>{row.name}</span>
          <span className="quiet">
            deleted <Ago at={row.deletedAt} />
          </span>
          <span className="grow" />
          <button className="tool" onClick={() => onRestore(row)} aria-label={`Bring ${row.name} back`}>
            Restore
          </button>
          <button className="tool" onClick={() => onPurge(row)} aria-label={`Delete ${row.name} permanently`}>
            Delete permanently
          </button>
        </div>
      ))}
    </details>
  );
}
