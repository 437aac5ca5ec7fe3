import { publish } from '@/server/bus';
import { database } from '@/server/database';
import { answer, body, json } from '@/server/http';
import { stepRequest } from '@/server/requests';
import { applyStep, stepsSince } from '@/server/variants';

type Context = { params: Promise<{ variant: string }> };

export const GET = (request: Request, { params }: Context) =>
  answer(async () => {
    const since = Number(new URL(request.url).searchParams.get('since') ?? 0);
    return json({ steps: stepsSince(database(), (await params).variant, Number.isFinite(since) ? since : 0) });
  });

export const POST = (request: Request, { params }: Context) =>
  answer(async () => {
    const { revision, label, edits, client } = await body(request, stepRequest);
    const { variant } = await params;
    return json(publish(variant, applyStep(database(), variant, revision, label, edits, client, Date.now())), 201);
  });
