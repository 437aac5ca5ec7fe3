'use client';
import { useInBrowser } from '../shell/useInBrowser';
import { ChartHost } from './ChartHost';
import { MovedBar } from './MovedBar';
import { Panel } from './panels/Panel';
import { TreeStrip } from './TreeStrip';
import Button from '@mui/material/Button';
import { useBench, useSession } from '../shell/context';

/** The trees of the design: which way each VLAN goes, where it is cut, and why. */
export function TreesStage() {
  const { go } = useBench();
  const inBrowser = useInBrowser();
  const empty = useSession((s) => s.design.switches.length === 0);
  return (
    <>
      <TreeStrip />
      <main className="stage">
        <section className="chart-side" aria-label="Chart">
          {empty ? (
            <div className="empty-chart">
              <h2>No switches yet</h2>
              <p>
                A tree needs switches and links. Lay them out in Cabling: draw them, start from a pattern, or import.
              </p>
              <p>
                <Button variant="contained" onClick={() => go('cabling')}>
                  Go to Cabling
                </Button>
              </p>
            </div>
          ) : (
            inBrowser && <ChartHost />
          )}
          <MovedBar />
        </section>
        <Panel />
      </main>
    </>
  );
}
