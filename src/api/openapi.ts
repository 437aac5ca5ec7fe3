/** The API described in OpenAPI 3.1, made from the schemas that server and browser use. */
import { z } from 'zod';
import { designJsonSchema, editSchema } from '../core/design';
import { apiError, designDocument, editDocument, noticeSchema } from './contract';
import { OPERATIONS, SERVER_OPERATIONS } from './operations';
import type { Operation } from './operations';
import { VERSION } from './version';

type Json = Record<string, unknown>;

const reference = (name: string): Json => ({ $ref: `#/components/schemas/${name}` });

/** JSON Schema of a Zod schema; whole documents and edits are references to their own schemas. */
function schemaOf(schema: z.ZodType, io: 'input' | 'output'): Json {
  const made = z.toJSONSchema(schema, {
    io,
    unrepresentable: 'any',
    override: ({ zodSchema, jsonSchema }) => {
      const name = zodSchema === designDocument ? 'Design' : zodSchema === editDocument ? 'Edit' : null;
      // Numbers without a bound of their own: those of the language say nothing to a reader.
      if (jsonSchema.maximum === Number.MAX_SAFE_INTEGER) delete jsonSchema.maximum;
      if (jsonSchema.minimum === Number.MIN_SAFE_INTEGER) delete jsonSchema.minimum;
      delete jsonSchema.readOnly;
      if (name) Object.assign(jsonSchema, reference(name));
    },
  }) as Json;
  delete made.$schema;
  return made;
}

const json = (schema: Json): Json => ({ content: { 'application/json': { schema } } });

const isFile = (answer: Operation['answer']): answer is readonly string[] => Array.isArray(answer);

function operationOf(id: string, { path, summary, request, status = 200, answer, query }: Operation): Json {
  const inPath = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const inQuery = Object.entries(query ?? {}).map(([name, description]) => ({
    name,
    in: 'query',
    description,
    schema: { type: 'string' },
  }));
  const body = isFile(answer)
    ? { content: Object.fromEntries(answer.map((type) => [type, {}])) }
    : json(schemaOf(answer, 'output'));
  return {
    operationId: id,
    summary,
    parameters: [...inPath, ...inQuery],
    ...(request && { requestBody: { required: true, ...json(schemaOf(request, 'input')) } }),
    responses: {
      [status]: { description: summary, ...body },
      default: { description: 'A refusal, with its sentence', ...json(reference('Refusal')) },
    },
  };
}

/** The whole description; see `docs/openapi.json`. */
export function openApi(): Json {
  const paths: Record<string, Json> = {};
  for (const [id, operation] of Object.entries<Operation>({ ...OPERATIONS, ...SERVER_OPERATIONS })) {
    const path = `/api${operation.path.replace(/:(\w+)/g, '{$1}')}`;
    paths[path] = { ...paths[path], [operation.method.toLowerCase()]: operationOf(id, operation) };
  }
  const design = designJsonSchema();
  delete design.$schema;
  return {
    openapi: '3.1.0',
    info: {
      title: 'Knot Path',
      version: VERSION,
      description: 'Designs of redundant switched networks. Rules that no schema can express: docs/api.md.',
    },
    paths,
    components: {
      schemas: {
        Design: design,
        Edit: schemaOf(editSchema, 'input'),
        Notice: schemaOf(noticeSchema, 'output'),
        Refusal: { type: 'object', required: ['error'], properties: { error: schemaOf(apiError, 'output') } },
      },
    },
  };
}
