'use client';
import { useState } from 'react';
import {
  bridgeIdWords,
  formatBridgeId,
  formatPortId,
  grouped,
  numberToMac,
  shortBridgeId,
} from '../../../core/standard';
import type { BridgeId, VectorPart } from '../../../core/standard';

import { systemIdExtension } from '../../../core/network';
import type { Candidate, Contest, Ledger as LedgerValue, LedgerPart, SolvedDesign } from '../../../core/trees';
import { useSession, useTree } from '../../session/context';
import { LedgerTable } from '../../controls/LedgerTable';

const HEADS: Record<Contest['kind'], readonly string[]> = {
  received: ['received on', 'root', 'cost', 'from', 'its port'],
  lan: ['offered by', 'root', 'cost', 'bridge', 'port'],
  election: ['switch', '', 'priority', 'MAC address', ''],
};

const MOST_SHOWN = 8;

interface Cell {
  readonly part: LedgerPart | null;
  readonly text: string;
  readonly full?: string;
  readonly hex?: string;
}

const bridgeCell = (id: BridgeId, unlike: boolean): Omit<Cell, 'part'> => ({
  text: shortBridgeId(id, unlike),
  full: bridgeIdWords(id),
  hex: formatBridgeId(id),
});

function cells(contest: Contest, c: Candidate, extension: number, regional: boolean, unlike: boolean): Cell[] {
  const { vector } = c;
  if (contest.kind === 'election')
    return [
      {
        part: 'priority',
        text: extension === 0 ? `${vector.root.priority}` : `${vector.root.priority - extension} + ${extension}`,
      },
      { part: 'mac', text: numberToMac(vector.root.mac) },
    ];
  const part = (name: VectorPart, cell: Omit<Cell, 'part'>) => ({ part: name, ...cell });
  return [
    part('root', bridgeCell(vector.root, unlike)),
    part('rootPathCost', { text: grouped(vector.rootPathCost) }),
    ...(regional
      ? [
          part('regionalRoot', vector.regionalRoot ? bridgeCell(vector.regionalRoot, unlike) : { text: '–' }),
          part('internalCost', { text: grouped(vector.internalCost ?? 0) }),
        ]
      : []),
    part('designatedBridge', bridgeCell(vector.designatedBridge, unlike)),
    part('designatedPort', { text: c.own ? '–' : formatPortId(vector.designatedPort) }),
  ];
}

function label(solved: SolvedDesign, contest: Contest, c: Candidate): string {
  const { design, ports } = solved.topology;
  const name = design.switches[c.bridge]!.name;
  if (contest.kind === 'election') return name;
  if (c.own) return 'itself';
  const port = ports[c.port!]!.element.name;
  return contest.kind === 'lan' ? `${name} ${port}` : `${port} ◂ ${name}`;
}

function rowNote(c: Candidate): string {
  if (c.barred)
    return c.barred === 'root-guard' ? 'may not become root port, not counted' : 'its own offer, not counted';
  if (c.wins) return 'wins';
  return c.lostBy === 'receivingPort' ? 'lost by the receiving port' : '';
}

function ContestTable({ solved, contest }: { solved: SolvedDesign; contest: Contest }) {
  const of = useTree();
  const extension = of ? systemIdExtension(of.tree) : 0;
  const [all, setAll] = useState(false);
  const regional = contest.kind !== 'election' && contest.candidates.some((c) => c.vector.regionalRoot !== undefined);
  const heads = HEADS[contest.kind].flatMap((h) =>
    h === '' ? [] : h === 'cost' && regional ? ['outside', 'regional', 'inside'] : [h],
  );
  // Between switches with a tree per VLAN and others, extensions differ, and may decide.
  const unlike = contest.candidates.some(({ vector }) =>
    [vector.root, vector.designatedBridge].some((id) => (id.priority & 0xfff) !== extension),
  );
  const rows = all ? contest.candidates : contest.candidates.slice(0, MOST_SHOWN);
  const hidden = contest.candidates.length - rows.length;
  return (
    <>
      <LedgerTable
        caption={contest.title}
        heads={heads}
        wide={regional}
        rows={rows.map((c) => ({
          key: `${c.bridge} ${c.port}`,
          label: (
            <>
              {label(solved, contest, c)}
              {c.barred && <small> {c.barred === 'root-guard' ? 'root guard' : 'own offer'}</small>}
            </>
          ),
          wins: c.wins,
          note: rowNote(c),
          cells: cells(contest, c, extension, regional, unlike).map((cell) => ({
            ...cell,
            mark:
              c.wins && cell.part === contest.decidedBy
                ? 'decided'
                : c.lostBy !== null && cell.part === c.lostBy
                  ? 'struck'
                  : null,
          })),
        }))}
      />
      {hidden > 0 && (
        <button className="plain quiet" onClick={() => setAll(true)}>
          and {hidden} more, all worse
        </button>
      )}
      {contest.decidedBy === 'receivingPort' && (
        <p className="quiet">All parts are the same: the lower receiving port identifier decided.</p>
      )}
    </>
  );
}

/** Why: one sentence, then the candidates with the part that decided marked and the losing parts struck. */
export function Ledger({ ledger, focusContest = 0 }: { ledger: LedgerValue; focusContest?: number }) {
  const solved = useSession((s) => s.solved);
  const contests = [...ledger.contests.slice(focusContest), ...ledger.contests.slice(0, focusContest)];
  return (
    <section className="why" tabIndex={-1} aria-label="Why">
      <p className="sentence">{ledger.sentence}</p>
      {contests.map((contest, i) =>
        i === 0 ? (
          <ContestTable key={i} solved={solved} contest={contest} />
        ) : (
          <details key={i}>
            <summary>{contest.title}</summary>
            <ContestTable solved={solved} contest={contest} />
          </details>
        ),
      )}
      {contests.length > 0 && <p className="quiet small">the marked part decided · lower wins, left to right</p>}
    </section>
  );
}
