/** Notices what another process changed in the file: steps of a second server, or a backup that was restored. */
import type { Notice } from '../api/contract';
import { factOf } from './database';
import { variants } from './schema';
import type { Db } from './db';

export interface Watch {
  /** Looks once; cheap when nothing was changed. */
  readonly look: () => void;
  /** Takes note of a change that this process made. */
  readonly own: (notice: Notice) => void;
}

export function watchFile(db: Db, publish: (notice: Notice) => void): Watch {
  const version = () => Number(db.$client.pragma('data_version', { simple: true }));
  const revisions = () =>
    new Map(
      db
        .select({ id: variants.id, revision: variants.revision })
        .from(variants)
        .all()
        .map((v) => [v.id, v.revision]),
    );
  let seen = version();
  let epoch = factOf(db, 'epoch');
  let known = revisions();

  const look = (): void => {
    try {
      const now = version();
      if (now === seen) return;
      const before = known;
      [known, seen] = [revisions(), now];
      const next = factOf(db, 'epoch');
      if (next !== epoch) {
        epoch = next;
        return publish({ kind: 'restored', epoch });
      }
      for (const [variant, revision] of known)
        if ((before.get(variant) ?? 0) < revision) publish({ kind: 'step', variant, revision, client: '' });
      publish({ kind: 'designs' });
    } catch {
      // Locked at this moment: the next look will tell.
    }
  };
  return {
    look,
    own: (notice) => {
      if (notice.kind === 'step') known.set(notice.variant, notice.revision);
    },
  };
}
