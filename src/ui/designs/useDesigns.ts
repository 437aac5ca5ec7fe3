import { useCallback, useEffect, useState } from 'react';
import type { NoticeContent } from '../session/notice';
import { api } from '../session/api';
import { listenToNotices } from '../session/notices';
import type { DeletedDesign, DesignRow } from '../session/types';

const NOTHING_YET = { designs: [], deleted: [] };

/** All designs as the server has them, and what can be done with one; each says what it did, with an undo. */
export function useDesigns(
  initial: { designs: DesignRow[]; deleted: DeletedDesign[] } | null,
  say: (notice: NoticeContent) => void,
) {
  const [lists, setLists] = useState(initial);
  const reload = useCallback(async () => setLists(await api.listDesigns()), []);

  useEffect(() => {
    if (initial === null) void reload().catch((error: Error) => say({ text: error.message, alarm: true }));
  }, [initial, reload, say]);
  // What other windows make or delete shows here too.
  useEffect(
    () => listenToNotices((notice) => void (notice.kind === 'designs' && reload().catch(() => undefined))),
    [reload],
  );

  const attempt = async (run: () => Promise<unknown>) => {
    try {
      await run();
      await reload();
    } catch (error) {
      say({ text: error instanceof Error ? error.message : String(error), alarm: true });
    }
  };
  const remove = (row: DesignRow) =>
    attempt(async () => {
      await api.deleteDesign(row.id);
      say({
        text: `Deleted ${row.name}.`,
        action: { label: 'Undo', run: () => void attempt(() => api.restoreDesign(row.id)) },
      });
    });
  const rename = async (row: DesignRow, name: string) => {
    await api.renameDesign(row.id, name);
    await reload();
    say({
      text: `Renamed ${row.name} to ${name}.`,
      action: { label: 'Undo', run: () => void attempt(() => api.renameDesign(row.id, row.name)) },
    });
  };
  const recover = (row: DesignRow) =>
    attempt(async () => {
      const made = await api.recoverDesign(row.id);
      say({ text: `Made ${made.name} from the last readable state.` });
    });
  const duplicate = (row: DesignRow) =>
    attempt(async () => {
      const copy = await api.duplicateDesign(row.id);
      say({
        text: `Made ${copy.name}.`,
        action: { label: 'Undo', run: () => void attempt(() => api.deleteDesign(copy.id)) },
      });
    });
  return { loading: lists === null, ...(lists ?? NOTHING_YET), attempt, remove, rename, recover, duplicate };
}
