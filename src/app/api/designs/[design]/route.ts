import { database } from '@/server/database';
import { deleteDesign, findDesign, renameDesign } from '@/server/designs';
import { answer, body, json } from '@/server/http';
import { renameRequest } from '@/server/requests';

type Context = { params: Promise<{ design: string }> };

export const GET = (_: Request, { params }: Context) =>
  answer(async () => json(findDesign(database(), (await params).design)));

export const PATCH = (request: Request, { params }: Context) =>
  answer(async () => {
    const { name } = await body(request, renameRequest);
    return json(renameDesign(database(), (await params).design, name, Date.now()));
  });

export const DELETE = (_: Request, { params }: Context) =>
  answer(async () => {
    deleteDesign(database(), (await params).design, Date.now());
    return json({ deleted: true });
  });
