import { emptyDesign, readDesign } from '@/core/design';
import { database } from '@/server/database';
import { createDesign, listDesigns } from '@/server/designs';
import { answer, body, json, newId } from '@/server/http';
import { refused } from '@/server/problem';
import { createRequest } from '@/server/requests';

export const dynamic = 'force-dynamic';

export const GET = () => answer(() => json({ designs: listDesigns(database()) }));

export const POST = (request: Request) =>
  answer(async () => {
    const { name, variant, design } = await body(request, createRequest);
    const read = design === undefined ? { ok: true as const, design: emptyDesign(name) } : readDesign(design);
    if (!read.ok) throw refused(read.faults);
    const documents = [{ name: variant ?? 'as drawn', design: read.design }];
    return json(createDesign(database(), name, documents, newId, Date.now()), 201);
  });
