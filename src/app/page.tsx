import { VERSION } from '@/api/version';
import type { DeletedDesign, DesignRow } from '@/api/contract';
import { ask, hasSession, withPage } from '@/server/ask';
import { summarise } from '@/server/summary';
import { EXAMPLES, PRACTICE } from '@/demo/examples';
import { DesignList } from '@/ui/designs/DesignList';
import type { ShelfItem } from '@/ui/designs/Shelf';
import { Trouble } from '@/ui/controls/Trouble';

export const dynamic = 'force-dynamic';

/** The examples, drawn once. */
const SHELF: readonly ShelfItem[] = [...EXAMPLES, PRACTICE].map(({ id, question, stage, query, design }) => {
  const document = design();
  return { id, question, stage, query, name: document.name, ...summarise(document) };
});

export default async function Home() {
  const asked = await ask('listDesigns');
  if (!asked.ok) return <Trouble title="The list of designs cannot be read" sentence={asked.sentence} />;
  const text = withPage(asked.text);
  const initial = text === null ? null : (JSON.parse(text) as { designs: DesignRow[]; deleted: DeletedDesign[] });
  return <DesignList initial={initial} version={VERSION} shelf={SHELF} session={await hasSession()} />;
}
