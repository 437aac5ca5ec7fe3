/**
 * The one stream of events of a browser, shared by all its windows: a browser opens six connections to a server at
 * most, and a stream for each window would use them up.
 */
import type { Notice } from '../api/contract';

/** What a window hears: a notice, or that the stream broke. */
export type NoticeMessage = Notice | { readonly kind: 'broken' };

const scope = self as unknown as { onconnect: ((event: MessageEvent) => void) | null };
const ports = new Set<MessagePort>();
const RETRY_MS = 3000;
let hello: Notice | null = null;

const tell = (message: NoticeMessage) => ports.forEach((port) => port.postMessage(message));

function listen(): void {
  const source = new EventSource('/api/events');
  source.onmessage = ({ data }: MessageEvent<string>) => {
    const notice = JSON.parse(data) as Notice;
    if (notice.kind === 'hello' || notice.kind === 'restored') hello = notice;
    tell(notice);
  };
  source.onerror = () => {
    hello = null;
    tell({ kind: 'broken' });
    // After an answer that is no stream, the browser does not try again by itself.
    if (source.readyState !== EventSource.CLOSED) return;
    setTimeout(listen, RETRY_MS);
  };
}

scope.onconnect = (event) => {
  const port = event.ports[0]!;
  ports.add(port);
  port.onmessage = ({ data }: MessageEvent<string>) => data === 'bye' && ports.delete(port);
  if (hello) port.postMessage(hello);
};

listen();
