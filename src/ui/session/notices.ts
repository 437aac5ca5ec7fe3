/** What the server tells all windows of a browser, over one stream. */
import type { Notice } from '../../api/contract';
import type { NoticeMessage } from '../../workers/notices';

/** Calls `onNotice` for everything that the server tells, until the returned function is called. */
export function listenToNotices(onNotice: (notice: Notice) => void): () => void {
  if (typeof SharedWorker === 'undefined') return listenAlone(onNotice);
  const worker = new SharedWorker(new URL('../../workers/notices.ts', import.meta.url), {
    type: 'module',
    name: 'knot-path-notices',
  });
  worker.port.onmessage = ({ data }: MessageEvent<NoticeMessage>) => data.kind !== 'broken' && onNotice(data);
  const leave = () => worker.port.postMessage('bye');
  window.addEventListener('pagehide', leave);
  return () => {
    window.removeEventListener('pagehide', leave);
    leave();
    worker.port.close();
  };
}

/** A stream of this window's own, where windows cannot share one. */
function listenAlone(onNotice: (notice: Notice) => void): () => void {
  const source = new EventSource('/api/events');
  source.onmessage = ({ data }: MessageEvent<string>) => onNotice(JSON.parse(data) as Notice);
  return () => source.close();
}
