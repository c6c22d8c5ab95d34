/** The schema of the show file (JSON Schema 2020-12); published in docs/. */
import { SHOW_FORMAT, SHOW_VERSION } from '../../files/format';
import { standaloneSchema } from './openapi';
import { showRecords } from './show';

const recordsOf = showRecords.schema['properties'] as Readonly<Record<string, object>>;

export const showFileSchema = standaloneSchema({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Taxiarch show file',
  description: 'A whole show. Older versions are brought up to this one when they are read.',
  type: 'object',
  required: ['format', 'version', 'records', 'files'],
  properties: {
    format: { const: SHOW_FORMAT },
    version: { const: SHOW_VERSION },
    records: {
      ...showRecords.schema,
      properties: { ...recordsOf, show: { ...recordsOf['show'], minItems: 1, maxItems: 1 } },
    },
    files: {
      type: 'object',
      description: 'Files that the records name: SHA-256 in hexadecimal, and the bytes in base64.',
      propertyNames: { pattern: '^[0-9a-f]{64}$' },
      additionalProperties: { type: 'string', contentEncoding: 'base64' },
    },
  },
});
