'use client';
import type { BundleEdits } from '../../core/design';
import { useBench } from '../session/context';

/** Makes an edit that may be refused for a reason, and says the reason. */
export function useBundleEdits(): (label: string, result: BundleEdits) => boolean {
  const { edit, say } = useBench();
  return (label, result) => {
    if (result.ok) return edit(label, result.edits);
    say({ text: result.sentence, alarm: true });
    return false;
  };
}
