import { database } from '@/server/database';
import { listDesigns } from '@/server/designs';
import { DesignList } from '@/ui/designs/DesignList';

export const dynamic = 'force-dynamic';

export default function Home() {
  return <DesignList initial={listDesigns(database())} />;
}
