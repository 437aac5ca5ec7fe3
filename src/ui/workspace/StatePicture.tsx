'use client';
import { useMemo, useState } from 'react';
import type { Design } from '../../core/design';
import { solveDesign } from '../../core/trees';
import { arrangeAsCabled, arrangeByDepth } from '../chart/arrange';
import type { Arrangement, Ref } from '../session/view';
import { layOut, looksOf, placesOf } from '../chart/cabling-scene';
import { Chart } from '../chart/Chart';
import { sceneOf } from '../chart/scene';
import { hueOf } from '../chart/hue';
import { treeInView, useBench } from '../session/context';
import { refName } from '../controls/chart-refs';
import { OneOf } from '../controls/OneOf';
import { ARRANGEMENTS } from '../controls/ArrangementChoice';

const AREA = { width: 760, height: 420 };
const NOTHING: ReadonlySet<string> = new Set();
const NO_REFS: readonly Ref[] = [];
const stay = () => {};

/** A state of the design as a drawing: the tree in view, by depth or as cabled. */
export function StatePicture({ design, label }: { design: Design; label: string }) {
  const { view } = useBench();
  const [arrangement, setArrangement] = useState<Arrangement>('cabling');
  const { scene, hue, tree } = useMemo(() => {
    const cabled = arrangeAsCabled(design, AREA);
    const solved = solveDesign(design);
    const of = treeInView({ solved }, view);
    if (!of) return { scene: layOut(looksOf(design, null), placesOf(design, cabled.at)), hue: null, tree: null };
    const arranged = arrangement === 'depth' ? arrangeByDepth(solved, of, cabled.at, AREA) : cabled;
    return { scene: sceneOf(solved, of, arranged), hue: hueOf(design, of.tree), tree: of.tree };
  }, [design, view, arrangement]);
  if (design.switches.length === 0) return <p className="quiet pad">There is no switch in this state.</p>;
  return (
    <>
      <div className="chart-tools">
        {tree && <span className="quiet">{tree.vlan === null ? tree.name : `${tree.vlan} ${tree.name}`}</span>}
        <OneOf label="Arrangement" options={ARRANGEMENTS} value={arrangement} onPick={setArrangement} />
      </div>
      <Chart
        scene={scene}
        fitKey={`history ${arrangement}`}
        hue={hue}
        selection={NO_REFS}
        onSelect={stay}
        pathPorts={NOTHING}
        pathPlaces={NOTHING}
        movedPorts={NOTHING}
        titleOf={(ref) => refName(design, ref)}
        label={label}
      />
    </>
  );
}
