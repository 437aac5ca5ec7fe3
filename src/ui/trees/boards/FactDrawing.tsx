'use client';
import { useMemo } from 'react';
import { grouped, shortBridgeId } from '../../../core/standard';
import { sheetLinks, stepCost } from '../../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import { arrangeAsCabled } from '../../chart/arrange';
import { FACT_PLATE, factLines, factWidth } from './fact-places';
import styles from './FactDrawing.module.css';

const AREA = { width: 820, height: 520 };

/** What is given for a tree and nothing else: switches with priority and address, links with the cost at each end. */
export function FactDrawing({ solved, of }: { solved: SolvedDesign; of: SolvedTree }) {
  const { design, portBridge, ports } = solved.topology;
  const at = useMemo(() => arrangeAsCabled(design, AREA).at, [design]);
  const links = useMemo(() => sheetLinks(of), [of]);
  const taking = [...design.switches.keys()].filter((b) => of.problem.bridgeTakesPart[b]);
  const crowded = taking.length > 40;
  const xs = taking.map((b) => at[b]!.x);
  const ys = taking.map((b) => at[b]!.y);
  const [x, y] = [Math.min(...xs) - 80, Math.min(...ys) - 34];
  const [w, h] = [Math.max(...xs) + 80 - x, Math.max(...ys) + 34 - y];
  const lines = useMemo(() => {
    const text = (p: number) =>
      `${ports[p]!.kind === 'bundle' ? '' : `${ports[p]!.element.name}: `}${grouped(stepCost(of, p))}`;
    const facts = links.map(({ a, b }) => ({
      ends: [portBridge[a]!, portBridge[b]!] as const,
      texts: [text(a), text(b)] as const,
    }));
    return factLines(facts, at, taking);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [links, at, of]);
  return (
    <svg className={styles.factsDrawing} viewBox={`${x} ${y} ${w} ${h}`} role="img" aria-label="The network">
      {lines.map(({ from, to }, i) => (
        <line key={i} x1={from.x} y1={from.y} x2={to.x} y2={to.y} />
      ))}
      {!crowded && lines.flatMap(({ texts }, i) => texts.map((t, side) => <FactText key={`${i} ${side}`} {...t} />))}
      {taking.map((b) => (
        <FactPlate key={b} solved={solved} of={of} bridge={b} at={at[b]!} />
      ))}
    </svg>
  );
}

interface PlateProps {
  readonly solved: SolvedDesign;
  readonly of: SolvedTree;
  readonly bridge: number;
  readonly at: { readonly x: number; readonly y: number };
}

/** A switch with its priority and the end of its address. */
function FactPlate({ solved, of, bridge, at }: PlateProps) {
  const { design, bridgeMac } = solved.topology;
  const priority = of.problem.bridgePriority[bridge]!;
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      <rect
        x={-FACT_PLATE.width / 2}
        y={-FACT_PLATE.height / 2}
        width={FACT_PLATE.width}
        height={FACT_PLATE.height}
        rx={3}
      />
      <text className={styles.factName} y={-4}>
        {design.switches[bridge]!.name}
      </text>
      <text className={styles.factId} y={12}>
        {shortBridgeId({ priority, mac: bridgeMac[bridge]! })}
      </text>
    </g>
  );
}

/** A cost on a line, with the line left out behind it. */
function FactText({ x, y, text }: { x: number; y: number; text: string }) {
  const width = factWidth(text);
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect className={styles.factGround} x={-width / 2} y={-7} width={width} height={14} />
      <text className={styles.factCost} dy={4}>
        {text}
      </text>
    </g>
  );
}
