'use client';
/** Makes a variant of a design that was read, and goes there. */
import { useRouter } from 'next/navigation';
import type { Design } from '../../core/design';
import { api } from '../session/api';
import { useBench } from '../session/context';
import { sayNext } from '../session/flash';
import { viewAddress } from '../session/view';

/** `said`: what is shown once the variant is open, by its name. */
export function useNewVariant() {
  const { session, head, setHead, variantId, view, stage, say } = useBench();
  const router = useRouter();
  return async (design: Design, name: string, said: (name: string) => string) => {
    try {
      await session.settled();
      const next = await api.copyVariant(head.id, variantId, { name, design });
      const made = next.variants.at(-1)!;
      setHead(next);
      sayNext({ text: said(made.name) });
      router.push(viewAddress(head.id, stage, made.id, view));
    } catch (error) {
      say({ text: error instanceof Error ? error.message : String(error), alarm: true });
    }
  };
}
