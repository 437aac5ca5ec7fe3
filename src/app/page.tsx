import { VERSION } from '@/api/version';
import type { DeletedDesign, DesignRow } from '@/api/contract';
import { ask, hasSession, withPage } from '@/server/ask';
import { DesignList } from '@/ui/designs/DesignList';
import { Trouble } from '@/ui/controls/Trouble';

export const dynamic = 'force-dynamic';

export default async function Home() {
  const asked = await ask('listDesigns');
  if (!asked.ok) return <Trouble title="The list of designs cannot be read" sentence={asked.sentence} />;
  const text = withPage(asked.text);
  const initial = text === null ? null : (JSON.parse(text) as { designs: DesignRow[]; deleted: DeletedDesign[] });
  return <DesignList initial={initial} version={VERSION} session={await hasSession()} />;
}
