'use client';
import { useSyncExternalStore } from 'react';
import { ChartHost } from './ChartHost';
import { MovedBar } from './MovedBar';
import { Panel } from './panels/Panel';
import { TreeStrip } from './TreeStrip';
import { useSession } from '../shell/context';

const never = () => () => {};
/** Whether the page runs in a browser yet: the chart fits itself to the window, so the server does not draw it. */
const useInBrowser = () =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );

/** The trees of the design: which way each VLAN goes, where it is cut, and why. */
export function TreesStage() {
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
                A tree needs switches and links. Import them as two tables from the <a href="/">list of designs</a>, or
                open the demo there to look around first.
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
