import { useEffect } from 'react';
import { partText, readPart } from '../../core/editing';
import { count } from '../../core/standard';
import { useBench } from '../session/context';
import { newId } from '../session/new-id';
import { chosenPart, pasteAction, removeAction } from './actions';
import type { Cabling } from './useCabling';

const inField = (target: EventTarget | null) =>
  target instanceof Element &&
  target.matches('input, textarea, select, [role="grid"], [role="grid"] *, [role="dialog"] *');
/** Copy, cut and paste of what is selected in the drawing, as text that any program keeps. */
export function useCablingClipboard({ design, selection, make, run, selectMany }: Cabling): void {
  const { say } = useBench();
  useEffect(() => {
    const things = selection.filter((r) => r.kind === 'switch' || r.kind === 'host' || r.kind === 'segment');
    const copy = (event: ClipboardEvent) => {
      if (inField(event.target) || things.length === 0) return;
      event.clipboardData?.setData('text/plain', partText(chosenPart(design, selection)));
      event.preventDefault();
      if (event.type !== 'cut') return say({ text: `Copied ${count(things.length, 'thing')}.` });
      if (run(removeAction(design, selection))) selectMany([]);
    };
    const paste = (event: ClipboardEvent) => {
      if (inField(event.target)) return;
      const text = event.clipboardData?.getData('text/plain') ?? '';
      const part = readPart(text);
      if (part) make(pasteAction(design, part, newId));
      else if (text.trim() !== '')
        say({
          text: 'The clipboard holds no part of a network. To paste cells of a spreadsheet, click the first cell in a table.',
        });
    };
    document.addEventListener('copy', copy);
    document.addEventListener('cut', copy);
    document.addEventListener('paste', paste);
    return () => {
      document.removeEventListener('copy', copy);
      document.removeEventListener('cut', copy);
      document.removeEventListener('paste', paste);
    };
  }, [design, selection, make, run, selectMany, say]);
}
