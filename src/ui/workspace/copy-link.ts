import type { Bench } from '../session/context';

/** Puts the address of the view on the clipboard; where the browser keeps that from a page, the address is said. */
export async function copyLink({ say }: Pick<Bench, 'say'>): Promise<void> {
  try {
    await navigator.clipboard.writeText(location.href);
    say({ text: 'The link to this view is on the clipboard.' });
  } catch {
    say({ text: `This browser does not let pages write to the clipboard. The link is ${location.href}` });
  }
}
