/** Pages of a design as the server draws them, and the words on them. */
import { renderToStaticMarkup } from 'react-dom/server';
import type { DesignHead, LoadedVariant } from '@/api/contract';
import { NO_HISTORY } from '@/core/design';
import type { Design } from '@/core/design';
import type { StageId } from '@/ui/session/stages';
import { fetchLater } from '@/ui/controls/later';
import { fetchStage } from '@/ui/workspace/stages-ahead';
import { Workbench } from '@/ui/workspace/Workbench';

/** Where the page is, for the router that stands in. */
export const at = { path: '' };

/** What a page of a stage is made from; the script of the stage is there. */
export async function opened(design: Design, stage: StageId): Promise<{ head: DesignHead; variant: LoadedVariant }> {
  const own = { id: 'v', designId: 'd', name: 'as cabled' };
  const head = { id: 'd', name: 'Ferries', variants: [own] } as unknown as DesignHead;
  at.path = `/d/d/${stage}`;
  await fetchStage(stage);
  await fetchLater();
  return { head, variant: { ...own, revision: 0, epoch: 'e', design, history: { ...NO_HISTORY } } };
}

/** The page of a stage as HTML; `query` as in the address. */
export const pageOf = async (design: Design, stage: StageId, query = ''): Promise<string> =>
  renderToStaticMarkup(<Workbench {...await opened(design, stage)} {...{ stage, query }} />);

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', '#x27': "'", nbsp: ' ' };
const decoded = (text: string) => text.replace(/&(#x27|\w+);/g, (all, name: string) => ENTITIES[name] ?? all);

/** What is read or heard of a page: its text, piece by piece, and the labels of its parts. */
export function wordsOf(html: string): string[] {
  const labels = [...html.matchAll(/ (?:aria-label|title|placeholder|alt)="([^"]*)"/g)].map(([, label]) => label!);
  const texts = html
    .replaceAll(/<style[^>]*>[^]*?<\/style>/g, '')
    .split(/<[^>]*>/)
    .filter((text) => text.trim() !== '');
  return [...labels, ...texts].map(decoded);
}
