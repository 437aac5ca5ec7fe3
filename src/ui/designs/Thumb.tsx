import type { DesignRow } from '../session/types';
import styles from './Thumb.module.css';

/** A design in the size of a stamp: where the switches stand and which are cabled. Two shapes, however large it is. */
export function Thumb({ dots, lines }: Pick<DesignRow, 'dots' | 'lines'>) {
  const size = dots.length > 60 ? 1.6 : dots.length > 20 ? 2.6 : 4.5;
  const cables = lines.map(([a, b]) => `M${dots[a]![0]} ${dots[a]![1]}L${dots[b]![0]} ${dots[b]![1]}`).join('');
  const plates = dots
    .map(([x, y]) => `M${x - size} ${y - size * 0.6}h${size * 2}v${size * 1.2}h${-size * 2}z`)
    .join('');
  return (
    <svg className={styles.thumb} viewBox="-6 -6 112 72" aria-hidden="true">
      <path className="cables" d={cables} />
      <path className="plates" d={plates} />
    </svg>
  );
}
