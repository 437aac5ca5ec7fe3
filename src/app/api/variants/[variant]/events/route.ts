import { database } from '@/server/database';
import { stepStream } from '@/server/event-stream';
import { answer } from '@/server/http';
import { stepsSince } from '@/server/variants';

export const dynamic = 'force-dynamic';

export const GET = (request: Request, { params }: { params: Promise<{ variant: string }> }) =>
  answer(async () => {
    const { variant } = await params;
    const seen = request.headers.get('last-event-id') ?? new URL(request.url).searchParams.get('since') ?? '0';
    const missed = stepsSince(database(), variant, Number(seen) || 0);
    return new Response(stepStream(variant, missed, request.signal), {
      headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
    });
  });
