'use client';
import Tooltip from '@mui/material/Tooltip';
import Link from 'next/link';
import { memo } from 'react';
import { viewAddress } from '../session/view';
import { useBench, useSession } from '../session/context';
import { Mark } from '../controls/Mark';
import { CommandsMenu } from './CommandsMenu';
import { SavingState } from './SavingState';
import type { Command } from '../session/commands';
import { STAGES } from '../session/stages';
import type { StageId } from '../session/stages';
import { count } from '../../core/standard';
import { ThemeChoice } from '../controls/ThemeChoice';
import { VariantMenu } from './VariantMenu';

interface Props {
  stage: StageId;
  commands: readonly Command[];
  onSearch: () => void;
}

/** Faults and risks that are not accepted; leads to the review. */
function FindingCount() {
  const { review, go } = useBench();
  const open = review.findings?.filter((f) => f.accepted === null) ?? [];
  const of = (severity: string) => open.filter((f) => f.severity === severity).length;
  const [faults, risks] = [of('fault'), of('risk')];
  if (faults + risks === 0) return null;
  return (
    <button className="tool" onClick={() => go('review')} title="Findings of the review">
      {faults > 0 && <span className="alarm">{count(faults, 'fault')}</span>}
      {faults > 0 && risks > 0 && ' · '}
      {risks > 0 && <span className="quiet">{count(risks, 'risk')}</span>}
    </button>
  );
}

/** Design, variant, stages, undo, all commands, search, and whether all is saved. */
export const Header = memo(function Header({ stage, commands, onSearch }: Props) {
  const { session, head, variantId, view, go } = useBench();
  const undo = useSession((s) => s.history.undo.at(-1));
  const redo = useSession((s) => s.history.redo.at(-1));
  return (
    <header className="head">
      <Link className="brand" href="/" aria-label="Knot Path: all designs">
        <Mark /> <span className="wordmark">Knot Path</span>
      </Link>
      <h1 className="title" title={head.name}>
        {head.name}
      </h1>
      <VariantMenu />
      <nav className="stages" aria-label="Stages">
        {STAGES.map(({ id, name }) => (
          <Link
            key={id}
            href={viewAddress(head.id, id, variantId, view)}
            aria-current={id === stage ? 'page' : undefined}
            onClick={(event) => {
              if (event.ctrlKey || event.metaKey || event.shiftKey || event.button !== 0) return;
              event.preventDefault();
              if (id !== stage) go(id);
            }}
          >
            {name}
          </Link>
        ))}
      </nav>
      <span className="grow" />
      <FindingCount />
      <SavingState />
      <Tooltip title={undo ? `Undo: ${undo.label}` : 'Nothing to undo'}>
        <span>
          <button className="tool" disabled={!undo} onClick={session.undo} aria-label="Undo">
            ↶
          </button>
        </span>
      </Tooltip>
      <Tooltip title={redo ? `Redo: ${redo.label}` : 'Nothing to redo'}>
        <span>
          <button className="tool" disabled={!redo} onClick={session.redo} aria-label="Redo">
            ↷
          </button>
        </span>
      </Tooltip>
      <CommandsMenu commands={commands} />
      <button className="tool" onClick={onSearch}>
        Search <kbd>Ctrl K</kbd>
      </button>
      <ThemeChoice />
    </header>
  );
});
