import { database } from '@/server/database';
import { answer, json } from '@/server/http';
import { loadVariant } from '@/server/variants';

export const GET = (_: Request, { params }: { params: Promise<{ variant: string }> }) =>
  answer(async () => json(loadVariant(database(), (await params).variant)));
