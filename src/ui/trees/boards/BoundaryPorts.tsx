'use client';
import { useMemo } from 'react';
import { endWords } from '../../../core/goals';
import { COMMON_TREE } from '../../../core/standard';
import { boundaryPorts } from '../../../core/trees';
import type { SolvedDesign } from '../../../core/trees';
import { Term } from '../../controls/Term';
import { useBench } from '../../session/context';

const OF_THE_NEIGHBOUR = 'The link belongs to the neighbour: instances follow the CIST here';
const OF_THIS_REGION = 'The link belongs to this region';

/** Ports at which regions meet; each leads to the chart. */
export function BoundaryPorts({ solved }: { solved: SolvedDesign }) {
  const { select, setView } = useBench();
  const cist = solved.trees.find((t) => t.outcome.cist);
  const found = useMemo(() => {
    if (!cist?.outcome.cist) return [];
    const kinds = boundaryPorts(solved.topology, cist.outcome.cist, cist.problem);
    return [...kinds.keys()].filter((p) => kinds[p]! > 0).map((p) => ({ port: p, strict: kinds[p] === 1 }));
  }, [solved, cist]);
  if (found.length === 0) return null;
  const show = (port: number) => {
    select({ kind: 'port', id: solved.topology.ports[port]!.element.id });
    setView({ board: 'chart', tree: COMMON_TREE });
  };
  return (
    <>
      <h3>
        <Term id="boundaryPort">Boundary ports</Term>
      </h3>
      <p className="sentences">
        {found.map(({ port, strict }) => (
          <button
            key={port}
            className="plain move"
            title={strict ? OF_THE_NEIGHBOUR : OF_THIS_REGION}
            onClick={() => show(port)}
          >
            {endWords(solved, port)}
          </button>
        ))}
      </p>
    </>
  );
}
