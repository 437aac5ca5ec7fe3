import { database } from '@/server/database';
import { restoreVariant } from '@/server/designs';
import { answer, json } from '@/server/http';

export const POST = (_: Request, { params }: { params: Promise<{ design: string; variant: string }> }) =>
  answer(async () => {
    const { design, variant } = await params;
    return json(restoreVariant(database(), design, variant));
  });
