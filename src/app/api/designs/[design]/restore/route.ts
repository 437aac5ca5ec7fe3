import { database } from '@/server/database';
import { restoreDesign } from '@/server/designs';
import { answer, json } from '@/server/http';

export const POST = (_: Request, { params }: { params: Promise<{ design: string }> }) =>
  answer(async () => json(restoreDesign(database(), (await params).design)));
