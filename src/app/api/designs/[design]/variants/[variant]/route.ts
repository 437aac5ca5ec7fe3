import { database } from '@/server/database';
import { deleteVariant, renameVariant } from '@/server/designs';
import { answer, body, json } from '@/server/http';
import { renameRequest } from '@/server/requests';

type Context = { params: Promise<{ design: string; variant: string }> };

export const PATCH = (request: Request, { params }: Context) =>
  answer(async () => {
    const { name } = await body(request, renameRequest);
    const { design, variant } = await params;
    return json(renameVariant(database(), design, variant, name));
  });

export const DELETE = (_: Request, { params }: Context) =>
  answer(async () => {
    const { design, variant } = await params;
    return json(deleteVariant(database(), design, variant, Date.now()));
  });
