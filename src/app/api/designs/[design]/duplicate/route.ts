import { database } from '@/server/database';
import { duplicateDesign } from '@/server/designs';
import { answer, json, newId } from '@/server/http';

export const POST = (_: Request, { params }: { params: Promise<{ design: string }> }) =>
  answer(async () => json(duplicateDesign(database(), (await params).design, newId, Date.now()), 201));
