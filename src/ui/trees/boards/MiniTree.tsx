'use client';
import { useMemo } from 'react';
import { arrangeByDepth } from '../../chart/arrange';
import type { Point } from '../../chart/geometry';
import { sceneOf } from '../../chart/scene';
import type { Scene } from '../../chart/scene-items';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import styles from './MiniTree.module.css';

interface Props {
  solved: SolvedDesign;
  of: SolvedTree;
  cabled: readonly Point[];
  hue: number;
  /** Shape of the room it has. */
  area: { readonly width: number; readonly height: number };
  /** Ports whose role differs from what it is compared with. */
  marked: ReadonlySet<string>;
  label: string;
  onPick: (kind: 'switch' | 'port', id: string) => void;
}

function boxOf(scene: Scene) {
  const xs = scene.plates.map((p) => p.x);
  const ys = scene.plates.map((p) => p.y);
  const pad = 62;
  const [x, y] = [Math.min(...xs) - pad, Math.min(...ys) - 30];
  return `${x} ${y} ${Math.max(...xs) + pad - x} ${Math.max(...ys) + 30 - y}`;
}

/** One tree as a small drawing: lines run through or end in a cut, the root is inverted, what differs is ringed. */
export function MiniTree({ solved, of, cabled, hue, area, marked, label, onPick }: Props) {
  const scene = useMemo(
    () => sceneOf(solved, of, arrangeByDepth(solved, of, cabled, area)),
    [solved, of, cabled, area],
  );
  const wires = scene.wires.filter((w) => w.kind !== 'host');
  const crowded = scene.plates.length > 40;
  return (
    <svg
      className="mini"
      viewBox={boxOf(scene)}
      role="img"
      aria-label={label}
      style={{ '--tree': `var(--hue-${hue})` } as React.CSSProperties}
    >
      {wires.map((w) => {
        const blocked = w.state === 'blocked';
        const t = (share: number) => [w.a.x + (w.b.x - w.a.x) * share, w.a.y + (w.b.y - w.a.y) * share] as const;
        const [x1, y1] = blocked && w.blockedA ? t(0.22) : t(0);
        const [x2, y2] = blocked && w.blockedB ? t(0.78) : t(1);
        const differs = [w.portA, w.portB].some((p) => p !== null && marked.has(p));
        const knot = blocked ? (w.blockedA ? [x1, y1] : [x2, y2]) : null;
        const port = w.portA ?? w.portB;
        return (
          <g key={w.key} onClick={() => port && onPick('port', port)}>
            {differs && <line className="mini-marked" x1={w.a.x} y1={w.a.y} x2={w.b.x} y2={w.b.y} />}
            <line className={`${styles.miniWire} ${styles[`wire-${w.state}`] ?? ''}`} x1={x1} y1={y1} x2={x2} y2={y2} />
            {knot && <circle className={styles.miniKnot} cx={knot[0]} cy={knot[1]} r={crowded ? 3 : 5} />}
          </g>
        );
      })}
      {scene.plates.map((p) => (
        <g
          key={p.id}
          className={`${styles.miniPlate} ${styles[`plate-${p.standing}`] ?? ''}`}
          transform={`translate(${p.x} ${p.y})`}
          onClick={() => onPick('switch', p.id)}
        >
          {crowded ? (
            <circle r={6} />
          ) : (
            <>
              <rect x={-p.width / 2 + 6} y={-16} width={p.width - 12} height={32} rx={3} />
              <text y={6}>{p.name}</text>
            </>
          )}
        </g>
      ))}
    </svg>
  );
}
