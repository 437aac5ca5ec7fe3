'use client';
import Button from '@mui/material/Button';
import { BOARDS } from '../session/view';
import type { View } from '../session/view';
import { Afterwards } from '../session/Afterwards';
import { useBench, useSession } from '../session/context';
import { STILL } from '../chart/still';
import { ChartHost } from './ChartHost';
import { DraftBar } from '../controls/DraftBar';
import { later } from '../controls/later';
import { MovedBar } from '../controls/MovedBar';
import { SidePanel } from './SidePanel';
import { TreeStrip } from '../controls/TreeStrip';
import { OneOf } from '../controls/OneOf';

/** One tree on the chart, or all of them on a board. */
function BoardTabs() {
  const { view, setView } = useBench();
  return (
    <OneOf
      className="boards"
      label="View of the trees"
      options={BOARDS}
      value={view.board}
      onPick={(board) => setView({ board })}
    />
  );
}

const SHOWN = {
  chart: ChartHost,
  roots: later(() => import('./boards/RootBoard').then((m) => m.RootBoard)),
  'link-use': later(() => import('./boards/LinkUseBoard').then((m) => m.LinkUseBoard)),
  instances: later(() => import('./boards/InstanceBoard').then((m) => m.InstanceBoard)),
  compare: later(() => import('./boards/CompareBoard').then((m) => m.CompareBoard)),
  predict: later(() => import('./boards/PredictBoard').then((m) => m.PredictBoard)),
} as const;

/** On the server the chart is drawn alone: the boards measure the page. */
const isDrawable = (board: View['board']): boolean => !STILL || board === 'chart';

/** The trees of the design: which way each VLAN goes, where it is cut, and why. */
export function TreesStage() {
  const { go, view, draft } = useBench();
  const empty = useSession((s) => s.design.switches.length === 0);
  const Shown = SHOWN[view.board];
  return (
    <>
      <Afterwards>
        <TreeStrip />
      </Afterwards>
      <main className="stage">
        <section className="chart-side" aria-label={BOARDS.find((b) => b.id === view.board)!.name}>
          <BoardTabs />
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
            isDrawable(view.board) && <Shown />
          )}
          {draft ? <DraftBar draft={draft} /> : <MovedBar />}
        </section>
        <Afterwards>
          <SidePanel />
        </Afterwards>
      </main>
    </>
  );
}
