import { useCallback } from 'react';
import { addElement, placeName } from '../../core/design';
import { missingVlans } from '../../core/editing';
import { count, formatVlanRanges } from '../../core/standard';
import type { Bench } from '../session/context';
import { newId } from '../session/new-id';
import type { Session } from '../session/session';

/** A change of the design; a refused one is said with its place, and VLANs that it names and that are not there are offered. */
export function useEdit(session: Session, say: Bench['say']): Bench['edit'] {
  return useCallback(
    (label, edits, known) => {
      const faults = session.edit(label, edits, known);
      const { design } = session.store.getState();
      if (faults[0]) {
        const place = placeName(design, faults[0].path);
        say({ text: [place, faults[0].sentence].filter(Boolean).join(': '), alarm: true });
        return false;
      }
      const missing = missingVlans(design, edits);
      if (missing.length === 0) return true;
      const names = `VLAN${missing.length === 1 ? '' : 's'} ${formatVlanRanges(missing)}`;
      const make = () =>
        void session.edit(
          `Make ${names}`,
          missing.map((number) => addElement('vlan', { id: newId('vlan'), number })),
        );
      say({
        text: `${names} ${missing.length === 1 ? 'is' : 'are'} not in the design: no tree shows ${missing.length === 1 ? 'it' : 'them'}.`,
        action: { label: `Make ${count(missing.length, 'VLAN')}`, run: make },
      });
      return true;
    },
    [session, say],
  );
}
