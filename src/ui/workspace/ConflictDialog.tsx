'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { applyEdits } from '../../core/design';
import type { Design } from '../../core/design';
import { api } from '../session/api';
import type { Conflict } from '../session/entry';
import type { Step } from '../../api/contract';
import { useBench, useSession } from '../session/context';
import { ChangeLines } from './ChangeLines';
import styles from './ConflictDialog.module.css';

const stepLabel = (step: Step) => (step.kind === 'undo' ? `Undo: ${step.label}` : step.label);

/** The design as this window had it: the state that its changes were made on, with them on top. */
async function myDesign(variantId: string, conflict: Conflict): Promise<Design> {
  const { design } = await api.stateAt(variantId, conflict.since);
  const applied = applyEdits(
    design,
    conflict.mine.flatMap((m) => m.edits),
  );
  if (!applied.ok) throw new Error(applied.faults[0]?.sentence);
  return applied.design;
}

/** Both sides of a conflict, and three ways to end it. None of them loses anything without being asked. */
export function ConflictDialog({ conflict }: { conflict: Conflict }) {
  const { session, head, setHead, variantId, say } = useBench();
  const design = useSession((s) => s.design);
  const aside = async () => {
    try {
      const mine = await myDesign(variantId, conflict);
      const next = await api.copyVariant(head.id, variantId, { design: mine });
      setHead(next);
      session.resolve('theirs');
      say({ text: `Your changes are in the new variant ${next.variants.at(-1)?.name}.` });
    } catch (error) {
      say({ text: error instanceof Error ? error.message : String(error), alarm: true });
    }
  };
  return (
    <Dialog open fullWidth maxWidth="md">
      <DialogTitle>Two windows changed the same thing</DialogTitle>
      <DialogContent>
        <p className="quiet">Both versions are kept, also over a reload, until you choose.</p>
        <div className={styles.twoSides}>
          <section aria-label="Stored">
            <h3>Stored</h3>
            <ul>
              {conflict.theirs.map((step) => (
                <ChangeLines key={step.revision} design={design} label={stepLabel(step)} edits={step.edits} />
              ))}
              {conflict.theirs.length === 0 && <li>The design changed while this window was closed.</li>}
            </ul>
          </section>
          <section aria-label="Yours">
            <h3>Yours, not stored yet</h3>
            <ul>
              {conflict.mine.map(({ key, label, edits }) => (
                <ChangeLines key={key} design={design} label={label} edits={edits} />
              ))}
            </ul>
          </section>
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => session.resolve('theirs')}>Keep the stored version</Button>
        <Button onClick={() => void aside()}>Save mine as a new variant</Button>
        <Button variant="contained" onClick={() => session.resolve('mine')}>
          Apply mine on top
        </Button>
      </DialogActions>
    </Dialog>
  );
}
