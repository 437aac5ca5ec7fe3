/** A variant as a file. */
import { exportFormat } from '../core/formats';
import { Problem } from './problem';
import type { LoadedVariant } from './variants';

/** Letters, digits and dashes of a name, for file names. */
export const fileName = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'design';

export interface ExportedFile {
  readonly name: string;
  readonly type: string;
  readonly text: string;
}

/** The variant in one of the formats of `core/formats/export.ts`, named after design and variant. */
export function exportFile(
  designName: string,
  variant: Pick<LoadedVariant, 'name' | 'design'>,
  id: string,
): ExportedFile {
  const format = exportFormat(id);
  if (typeof format === 'string') throw new Problem(422, 'unknown-format', format);
  const name = `${fileName(designName)}-${fileName(variant.name)}${format.ending}`;
  return { name, type: format.type, text: format.write({ ...variant.design, name: designName }) };
}
