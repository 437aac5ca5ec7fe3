'use client';
import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import { useBench, useSession } from '../session/context';
import { sheetTitle } from './sheet-title';
import styles from './PrintedTitle.module.css';

const MARGIN = 12;

/** The part of a chart in which something is drawn, in its own pixels; from the left edge on where a ruler stands there. */
function drawnBox(chart: SVGSVGElement): string | null {
  const sheet = chart.querySelector<SVGGElement>(':scope > g:not(.ruler)');
  const matrix = sheet?.transform.baseVal.consolidate()?.matrix;
  if (!sheet || !matrix) return null;
  const { x, y, width, height } = sheet.getBBox();
  const [left, top] = [matrix.a * x + matrix.e - MARGIN, matrix.d * y + matrix.f - MARGIN];
  const from = chart.querySelector('.ruler') ? Math.min(0, left) : left;
  return `${from} ${top} ${left - from + matrix.a * width + 2 * MARGIN} ${matrix.d * height + 2 * MARGIN}`;
}

/** On paper a drawing fills the sheet, all of it. */
function scaleCharts(on: boolean): void {
  for (const chart of document.querySelectorAll<SVGSVGElement>('svg.chart')) {
    const box = on ? drawnBox(chart) : null;
    if (box) chart.setAttribute('viewBox', box);
    else chart.removeAttribute('viewBox');
  }
}

/** Paper is light, whatever the screen is. */
function lighten(): () => void {
  const root = document.documentElement;
  const dark = root.getAttribute('data-dark');
  root.removeAttribute('data-dark');
  return () => dark !== null && root.setAttribute('data-dark', dark);
}

/** What a printed sheet shows and when it was printed, over it; not on the screen. */
export function PrintedTitle() {
  const bench = useBench();
  // Names of trees may change with the design.
  useSession((s) => s.design);
  const [at, setAt] = useState('');
  useEffect(() => {
    let restore = () => {};
    const before = () => {
      flushSync(() => setAt(new Date().toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })));
      scaleCharts(true);
      const darken = lighten();
      restore = () => {
        scaleCharts(false);
        darken();
      };
    };
    const after = () => restore();
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  return (
    <p className={styles.title}>
      <b>{sheetTitle(bench, true)}</b>
      <span>{at}</span>
    </p>
  );
}
