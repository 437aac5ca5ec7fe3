import { publish } from '@/server/bus';
import { database } from '@/server/database';
import { answer, body, json } from '@/server/http';
import { undoRequest } from '@/server/requests';
import { redoStep } from '@/server/variants';

export const POST = (request: Request, { params }: { params: Promise<{ variant: string }> }) =>
  answer(async () => {
    const { revision, client } = await body(request, undoRequest);
    const { variant } = await params;
    return json(publish(variant, redoStep(database(), variant, revision, client, Date.now())), 201);
  });
