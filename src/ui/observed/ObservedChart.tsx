'use client';
import { useCallback, useMemo, useState } from 'react';
import type { Design, ObservedNetwork } from '../../core/design';
import { gatherTrees, inferredLinks } from '../../core/observe';
import type { Difference } from '../../core/observe';
import { movedBetween, solveDesign } from '../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import { count } from '../../core/standard';
import { Chart } from '../chart/Chart';
import { hueOf } from '../chart/hue';
import type { Scene } from '../chart/scene-items';
import { ArrangementChoice } from '../controls/ArrangementChoice';
import { refName, useSelecting } from '../controls/chart-refs';
import { FoldTools, useOpening } from '../controls/FoldTools';
import { OneOf } from '../controls/OneOf';
import { useSideKey } from '../controls/Sides';
import { treeTitle } from '../controls/tree-names';
import { useSheet } from '../controls/useSheet';
import { treeInView, useBench, useShown } from '../session/context';
import type { Ref } from '../session/view';
import styles from './ObservedStage.module.css';

const AREA = { width: 620, height: 420 };
const NOTHING: ReadonlySet<string> = new Set();
const WHICH = [
  { id: 'designed', name: 'as designed' },
  { id: 'observed', name: 'as built' },
] as const;
type Which = (typeof WHICH)[number]['id'];

/** A drawing with its switches where the design has those of the same names. */
export function placedLike(drawing: Design, design: Design): Design {
  const places = new Map(design.switches.map((s) => [s.name.toLowerCase(), s]));
  return {
    ...drawing,
    switches: drawing.switches.map((s) => {
      const own = places.get(s.name.toLowerCase());
      return own?.x === undefined || own.y === undefined ? s : { ...s, x: own.x, y: own.y };
    }),
  };
}

/** Plates with what differs at them, and links that differ with a word. */
function marked(scene: Scene, differences: readonly Difference[]): Scene {
  const bySwitch = new Map<string, number>();
  for (const { of } of gatherTrees(differences)) {
    const [{ switch: s, verdict }] = of;
    if (s !== null && verdict !== 'not-observed') bySwitch.set(s, (bySwitch.get(s) ?? 0) + 1);
  }
  const links = new Map(
    differences.flatMap((d) => (d.kind === 'link' && d.element !== null ? [[d.element, d.verdict] as const] : [])),
  );
  const unseen = new Set(
    differences.flatMap((d) => (d.field === 'switch' && d.verdict === 'not-observed' ? (d.switch ?? []) : [])),
  );
  return {
    ...scene,
    plates: scene.plates.map((p) => {
      const n = (p.fold?.switches ?? [p.id]).reduce((sum, id) => sum + (bySwitch.get(id) ?? 0), 0);
      if (n > 0) return { ...p, tag: `${n} differ`, alarms: n, spoken: `${p.spoken}, ${count(n, 'difference')}` };
      return unseen.has(p.id)
        ? { ...p, standing: 'apart' as const, tag: 'not observed', spoken: `${p.spoken}, not observed` }
        : p;
    }),
    wires: scene.wires.map((w) => {
      const verdict = links.get(w.id);
      return verdict === undefined
        ? w
        : { ...w, label: verdict === 'missing' ? 'not there' : 'elsewhere', alarm: true };
    }),
  };
}

function useWhich(initial: Which) {
  const [which, setWhich] = useState<Which>(initial);
  useSideKey(useCallback(() => setWhich((w) => (w === 'designed' ? 'observed' : 'designed')), []));
  return [which, setWhich] as const;
}

/** Ports that differ, in the design; in what was read, those of another role. */
function useMoved(
  which: Which,
  of: SolvedTree | null,
  differences: readonly Difference[],
  shown: SolvedDesign,
  built: SolvedDesign,
): ReadonlySet<string> {
  return useMemo(() => {
    if (which === 'designed' || !of)
      return new Set(
        differences.flatMap((d) =>
          d.element !== null && (d.kind === 'port' || d.kind === 'bundle' || d.kind === 'tree') ? [d.element] : [],
        ),
      );
    return new Set(
      movedBetween(shown, built)
        .find((m) => m.tree === of.tree.id)
        ?.ports.map((p) => p.id),
    );
  }, [which, shown, built, of, differences]);
}

interface Props {
  readonly network: ObservedNetwork;
  readonly drawing: Design;
  readonly differences: readonly Difference[];
}

/** The tree in view as it is designed, with what differs marked; or as it was read, with what is inferred marked. */
export function ObservedChart({ network, drawing, differences }: Props) {
  const { view, setView, variantId } = useBench();
  const shown = useShown();
  const own = shown.topology.design;
  const [which, setWhich] = useWhich(own.switches.length === 0 ? 'observed' : 'designed');
  const built = useMemo(() => solveDesign(placedLike(drawing, own)), [drawing, own]);
  const solved = which === 'designed' ? shown : built;
  const of = treeInView({ solved }, view);
  const { design } = solved.topology;
  const moved = useMoved(which, of, differences, shown, built);
  const sheet = useSheet({ solved, of, view, apart: NOTHING, moved, area: AREA });
  const onOpen = useOpening(sheet, design);
  const titleOf = useCallback((ref: Ref) => refName(design, ref), [design]);
  const onSelect = useSelecting(design);
  const inferred = useMemo(() => inferredLinks(drawing, network), [drawing, network]);
  const scene = useMemo(() => {
    if (!sheet) return null;
    if (which === 'designed') return marked(sheet.scene, differences);
    const wires = sheet.scene.wires.map((w) => (inferred.has(w.id) ? { ...w, label: 'inferred' } : w));
    return { ...sheet.scene, wires };
  }, [sheet, which, differences, inferred]);
  if (!sheet || !of || !scene) return <p className="quiet pad">There is no tree to show in this reading.</p>;
  return (
    <>
      <div className={styles.caption}>
        <OneOf
          label="Show the network"
          options={WHICH}
          value={which}
          onPick={setWhich}
          lead={<span className="quiet">{treeTitle(of.tree)} · </span>}
        >
          <kbd className="key">B</kbd>
        </OneOf>
      </div>
      <ArrangementChoice value={view.arrangement} onPick={(arrangement) => setView({ arrangement })} />
      <FoldTools sheet={sheet} />
      <Chart
        scene={scene}
        fitKey={`${variantId} as built ${which} ${view.arrangement} ${view.fold}`}
        onOpen={onOpen}
        hue={hueOf(design, of.tree)}
        selection={which === 'designed' ? view.selection : []}
        onSelect={onSelect}
        pathPorts={NOTHING}
        pathPlaces={NOTHING}
        movedPorts={moved}
        titleOf={titleOf}
      />
    </>
  );
}
