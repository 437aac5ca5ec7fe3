import { database } from '@/server/database';
import { createDesign } from '@/server/designs';
import { answer, body, json, newId } from '@/server/http';
import { readImport } from '@/server/import';
import { importRequest } from '@/server/requests';

export const POST = (request: Request) =>
  answer(async () => {
    const asked = await body(request, importRequest);
    const documents = [{ name: 'as imported', design: readImport(asked) }];
    return json(createDesign(database(), asked.name, documents, newId, Date.now()), 201);
  });
