'use client';
import { useMemo } from 'react';
import { grouped, shortBridgeId } from '../../../core/standard';
import { sheetLinks, stepCost } from '../../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import { arrangeAsCabled } from '../../chart/arrange';
import styles from './FactDrawing.module.css';

const AREA = { width: 820, height: 520 };
const PLATE = { width: 118, height: 40 };

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
  const seen = new Map<string, number>();
  const turns = new Map<number, number>();
  return (
    <svg className={styles.factsDrawing} viewBox={`${x} ${y} ${w} ${h}`} role="img" aria-label="The network">
      {links.map(({ a, b }) => {
        const [from, to] = [at[portBridge[a]!]!, at[portBridge[b]!]!];
        const pair = [portBridge[a], portBridge[b]].sort().join();
        const n = seen.get(pair) ?? 0;
        seen.set(pair, n + 1);
        const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
        const shift = n * 16;
        const [ox, oy] = [(-(to.y - from.y) / length) * shift, ((to.x - from.x) / length) * shift];
        /** Outside the plate, ends of one switch in turn nearer and farther. */
        const near = (p: typeof from, q: typeof from, bridge: number) => {
          const [ux, uy] = [(q.x - p.x) / length, (q.y - p.y) / length];
          const out = Math.min(PLATE.width / 2 / Math.abs(ux || 1e-6), PLATE.height / 2 / Math.abs(uy || 1e-6));
          const turn = turns.get(bridge) ?? 0;
          turns.set(bridge, turn + 1);
          const t = Math.min(0.45, (out + 26 + (turn % 3) * 20 + Math.abs(ux) * 24) / length);
          return { x: p.x + (q.x - p.x) * t + ox, y: p.y + (q.y - p.y) * t + oy };
        };
        return (
          <g key={`${a} ${b}`}>
            <line x1={from.x + ox} y1={from.y + oy} x2={to.x + ox} y2={to.y + oy} />
            {!crowded &&
              [
                { p: a, place: near(from, to, portBridge[a]!) },
                { p: b, place: near(to, from, portBridge[b]!) },
              ].map(({ p, place }) => (
                <FactText
                  key={p}
                  {...place}
                  text={`${ports[p]!.kind === 'bundle' ? '' : `${ports[p]!.element.name}: `}${grouped(stepCost(of, p))}`}
                />
              ))}
          </g>
        );
      })}
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
      <rect x={-PLATE.width / 2} y={-PLATE.height / 2} width={PLATE.width} height={PLATE.height} rx={3} />
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
  const width = text.length * 7 + 4;
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect className={styles.factGround} x={-width / 2} y={-7} width={width} height={14} />
      <text className={styles.factCost} dy={4}>
        {text}
      </text>
    </g>
  );
}
