'use client';
import Tooltip from '@mui/material/Tooltip';
import type { ReactNode } from 'react';
import { GLOSSARY } from '../../core/messages';
import type { TermId } from '../../core/messages';
import styles from './Term.module.css';

interface Entry {
  readonly term: string;
  readonly sentence: string;
  readonly clause?: string;
}

/** A word of the field; pointing at it shows what it means, and the clause. */
export function Term({ id, children }: { id: TermId; children?: ReactNode }) {
  const entry: Entry = GLOSSARY[id];
  const title = (
    <>
      {entry.sentence}
      {entry.clause && <small className={styles.termClause}> {entry.clause}</small>}
    </>
  );
  return (
    <Tooltip title={title} placement="top-start" enterDelay={300} describeChild>
      <span className="term">{children ?? entry.term}</span>
    </Tooltip>
  );
}

const BY_WORD = new Map(Object.entries(GLOSSARY).map(([id, { term }]) => [term.toLowerCase(), id as TermId]));

/** A label that is a term, with a unit behind it or without: explained when it is one, plain text otherwise. */
export function Label({
  text,
  id = BY_WORD.get(text.replace(/, .*$/, '').toLowerCase()),
}: {
  text: string;
  id?: TermId | undefined;
}) {
  return id ? <Term id={id}>{text}</Term> : text;
}
