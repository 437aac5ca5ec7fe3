import type { Design } from '../../core/design';
import { opening } from '../chart/folding';
import { groupsOf } from '../chart/groups';
import { useBench } from '../session/context';
import { OneOf } from './OneOf';
import type { FoldChoice } from '../session/view';
import type { Sheet } from '../chart/folded';
import styles from './FoldTools.module.css';

const CHOICES: readonly { id: FoldChoice; name: string; title: string }[] = [
  { id: 'auto', name: 'auto', title: 'Until the drawing can be read' },
  { id: 'none', name: 'none', title: 'A plate for every switch' },
  { id: 'alike', name: 'alike', title: 'One plate for switches that are alike in this tree' },
  { id: 'groups', name: 'groups', title: 'One plate for each group of switches' },
  { id: 'groups-alike', name: 'alike groups', title: 'One plate for groups that are alike in this tree' },
];

/** How far the drawing is folded, and how many plates that leaves; nothing where folding would join nothing. */
export function FoldTools({ sheet }: { sheet: Sheet | null }) {
  const { view, setView } = useBench();
  if (!sheet?.canFold) return null;
  const plates = sheet.scene.plates.length;
  const switches = sheet.drawn.folding.cellOf.length;
  return (
    <OneOf
      className={styles.tools}
      label="Fold"
      options={CHOICES}
      value={view.fold}
      onPick={(fold) => setView({ fold, open: [] })}
      lead={
        <span className="quiet">{plates < switches ? `${switches} switches on ${plates} plates · fold` : 'fold'}</span>
      }
    >
      {view.open.length > 0 && (
        <button className="tool" onClick={() => setView({ open: [] })} title="Folds what was opened">
          fold in
        </button>
      )}
    </OneOf>
  );
}

/** Opens a fold of a drawing. */
export function useOpening(sheet: Sheet | null, design: Design): (id: string) => void {
  const { view, setView } = useBench();
  return (id) => {
    const cell = sheet?.drawn.folding.cells.find((c) => c.id === id);
    if (cell) setView({ open: [...view.open, ...opening({ design, groups: groupsOf(design) }, cell)] });
  };
}
