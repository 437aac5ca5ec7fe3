import { OneOf } from '../controls/OneOf';
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

interface Props {
  readonly sheet: Sheet;
  readonly switches: number;
  readonly value: FoldChoice;
  readonly opened: boolean;
  readonly onPick: (fold: FoldChoice) => void;
  readonly onFoldIn: () => void;
}

/** How far the drawing is folded, and how many plates that leaves. */
export function FoldTools({ sheet, switches, value, opened, onPick, onFoldIn }: Props) {
  const plates = sheet.scene.plates.length;
  return (
    <OneOf
      className={styles.tools}
      label="Fold"
      options={CHOICES}
      value={value}
      onPick={onPick}
      lead={
        <span className="quiet">{plates < switches ? `${switches} switches on ${plates} plates · fold` : 'fold'}</span>
      }
    >
      {opened && (
        <button className="tool" onClick={onFoldIn} title="Folds what was opened">
          fold in
        </button>
      )}
    </OneOf>
  );
}
