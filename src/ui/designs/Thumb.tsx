import type { DesignRow } from '../session/types';

/** A design in the size of a stamp: where the switches stand and which are cabled. */
export function Thumb({ dots, lines }: Pick<DesignRow, 'dots' | 'lines'>) {
  const size = dots.length > 60 ? 1.6 : dots.length > 20 ? 2.6 : 4.5;
  return (
    <svg className="thumb" viewBox="-6 -6 112 72" aria-hidden="true">
      {lines.map(([a, b]) => (
        <line key={`${a} ${b}`} x1={dots[a]![0]} y1={dots[a]![1]} x2={dots[b]![0]} y2={dots[b]![1]} />
      ))}
      {dots.map(([x, y], i) => (
        <rect key={i} x={x - size} y={y - size * 0.6} width={size * 2} height={size * 1.2} rx={0.5} />
      ))}
    </svg>
  );
}
