import { readDesign } from '@/core/design';
import { database } from '@/server/database';
import { copyVariant } from '@/server/designs';
import { answer, body, json, newId } from '@/server/http';
import { refused } from '@/server/problem';
import { copyRequest } from '@/server/requests';

export const POST = (request: Request, { params }: { params: Promise<{ design: string }> }) =>
  answer(async () => {
    const { from, name, design } = await body(request, copyRequest);
    const read = design === undefined ? undefined : readDesign(design);
    if (read && !read.ok) throw refused(read.faults);
    const { design: id } = await params;
    return json(copyVariant(database(), id, from, name ?? null, newId, Date.now(), read?.design), 201);
  });
