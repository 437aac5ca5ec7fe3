'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { api } from '../session/api';
import { useBench, useSession } from './context';

/** Both sides of a conflict, and three ways to end it. None of them loses anything without being asked. */
export function ConflictDialog() {
  const { session, head, setHead, variantId, say } = useBench();
  const conflict = useSession((s) => s.conflict);
  if (!conflict) return null;
  const aside = async () => {
    try {
      const next = await api.copyVariant(head.id, variantId, undefined, conflict.myDesign);
      setHead(next);
      session.resolve('theirs');
      say({ text: `Your changes are in the new variant ${next.variants.at(-1)?.name}.` });
    } catch (error) {
      say({ text: error instanceof Error ? error.message : String(error), alarm: true });
    }
  };
  return (
    <Dialog open fullWidth maxWidth="sm">
      <DialogTitle>Two windows changed the same thing</DialogTitle>
      <DialogContent>
        <div className="two-sides">
          <div>
            <h3>Already stored</h3>
            <ul>
              {conflict.theirs.map((step) => (
                <li key={step.revision}>{step.kind === 'undo' ? `Undo: ${step.label}` : step.label}</li>
              ))}
              {conflict.theirs.length === 0 && <li>The design changed while this window was closed.</li>}
            </ul>
          </div>
          <div>
            <h3>Yours, not stored yet</h3>
            <ul>
              {conflict.mine.map(({ label }, i) => (
                <li key={i}>{label}</li>
              ))}
            </ul>
          </div>
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => session.resolve('theirs')}>Keep what is stored</Button>
        <Button onClick={() => void aside()}>Put mine in a new variant</Button>
        <Button variant="contained" onClick={() => session.resolve('mine')}>
          Make my changes on top
        </Button>
      </DialogActions>
    </Dialog>
  );
}
