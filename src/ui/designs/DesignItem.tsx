'use client';
import Link from 'next/link';
import { api } from '../session/api';
import type { DesignRow } from '../session/types';
import { Ago } from '../controls/Ago';
import { Thumb } from './Thumb';
import styles from './DesignItem.module.css';

interface Props {
  readonly row: DesignRow;
  readonly onRename: () => void;
  readonly onDuplicate: () => void;
  readonly onDelete: () => void;
  readonly onRecover: () => void;
}

const variantsOf = (row: DesignRow) =>
  `${row.variants.length === 1 ? '1 variant' : `${row.variants.length} variants`}: ${row.variants.map((v) => v.name).join(', ')}`;

function Figure({ n, one, many }: { n: number; one: string; many: string }) {
  return (
    <div className="figure quiet">
      <b>{n}</b> {n === 1 ? one : many}
    </div>
  );
}

/** A design that cannot be read: why, and what can still be had of it. */
function Unreadable({ row, onDelete, onRecover }: Props) {
  return (
    <article className={`${styles.designRow} unreadable`} aria-label={row.name}>
      <div>
        <span className="name">{row.name}</span>
        <div className="alarm">Cannot be read: {row.unreadable}</div>
        <div className="quiet">{variantsOf(row)}</div>
      </div>
      <div>
        <button className="tool" onClick={onRecover} aria-label={`Open the last readable state of ${row.name}`}>
          Last readable state
        </button>
        {row.variants.map((v) => (
          <a key={v.id} className="tool" href={api.exportUrl(v.id, 'raw')} download>
            Stored text{row.variants.length > 1 ? `: ${v.name}` : ''}
          </a>
        ))}
        <button className="tool" onClick={onDelete} aria-label={`Delete ${row.name}`}>
          Delete
        </button>
      </div>
    </article>
  );
}

/** One design in the list. */
export function DesignItem(props: Props) {
  const { row, onRename, onDuplicate, onDelete } = props;
  if (row.unreadable !== undefined) return <Unreadable {...props} />;
  const address = `/d/${encodeURIComponent(row.id)}/trees`;
  return (
    <article className={styles.designRow} aria-label={row.name}>
      <Link href={address} prefetch={false} tabIndex={-1} aria-hidden="true">
        <Thumb {...row} />
      </Link>
      <div>
        <Link className="name" href={address} prefetch={false}>
          {row.name}
        </Link>
        <div className="quiet">{variantsOf(row)}</div>
      </div>
      <Figure n={row.switches} one="switch" many="switches" />
      <Figure n={row.links} one="link" many="links" />
      <Figure n={row.trees} one="tree" many="trees" />
      <div className="quiet">
        changed <Ago at={row.changedAt} />
      </div>
      <div>
        <button className="tool" onClick={onRename} aria-label={`Rename ${row.name}`}>
          Rename
        </button>
        <button className="tool" onClick={onDuplicate} aria-label={`Duplicate ${row.name}`}>
          Duplicate
        </button>
        <button className="tool" onClick={onDelete} aria-label={`Delete ${row.name}`}>
          Delete
        </button>
      </div>
    </article>
  );
}
