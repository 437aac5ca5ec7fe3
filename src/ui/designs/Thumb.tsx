import type { DesignRow } from '../session/types';
import styles from './Thumb.module.css';

type Drawn = Pick<DesignRow, 'dots' | 'lines' | 'roots' | 'blocked'>;

/** A design in the size of a stamp: where the switches stand, which are cabled, which is root, and what carries nothing. A few shapes, however large it is. */
export function Thumb({ dots, lines, roots = [], blocked = [] }: Drawn) {
  const size = dots.length > 60 ? 1.6 : dots.length > 20 ? 2.6 : 4.5;
  const way = ([a, b]: readonly [number, number]) => `M${dots[a]![0]} ${dots[a]![1]}L${dots[b]![0]} ${dots[b]![1]}`;
  const plate = ([x, y]: readonly [number, number]) =>
    `M${x - size} ${y - size * 0.6}h${size * 2}v${size * 1.2}h${-size * 2}z`;
  const idle = new Set(blocked);
  const cables = lines.filter((_, i) => !idle.has(i)).map(way);
  const plates = dots.map(plate);
  return (
    <svg className={styles.thumb} viewBox="-6 -6 112 72" aria-hidden="true">
      <path className="cables" d={cables.join('')} />
      {blocked.length > 0 && <path className={styles.blocked} d={blocked.map((i) => way(lines[i]!)).join('')} />}
      <path className="plates" d={plates.join('')} />
      {roots.length > 0 && <path className={styles.roots} d={roots.map((i) => plate(dots[i]!)).join('')} />}
    </svg>
  );
}
