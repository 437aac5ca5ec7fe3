import type { Arrangement } from '../session/view';
import { NotesMenu } from './NotesMenu';
import { OneOf } from './OneOf';

export const ARRANGEMENTS = [
  { id: 'depth', name: 'depth' },
  { id: 'cabling', name: 'cabling' },
] as const;

/** How the switches of a chart stand: by their cost to the root, or where they were put. */
export function ArrangementChoice(props: { value: Arrangement; onPick: (arrangement: Arrangement) => void }) {
  return (
    <OneOf className="chart-tools" label="Arrangement" options={ARRANGEMENTS} {...props}>
      <NotesMenu />
    </OneOf>
  );
}
