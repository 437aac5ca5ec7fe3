import { readFileSync } from 'node:fs';
import { designJsonSchema } from './json-schema';

test('the JSON Schema in docs is the one of the code', () => {
  const written = JSON.parse(readFileSync('docs/design.schema.json', 'utf8'));
  expect(written).toEqual(JSON.parse(JSON.stringify(designJsonSchema())));
  expect(Object.keys(written.properties)).toContain('switches');
});
