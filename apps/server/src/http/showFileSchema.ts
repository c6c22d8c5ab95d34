/** The schema of the show file (JSON Schema 2020-12), made from the shapes of the API; published in docs/. */
import { SHOW_FORMAT, SHOW_VERSION } from '@taxiarch/core/format';
import { schemas } from './openapiSchemas';

const RECORDS = [
  'ShowInfo',
  'Place',
  'FixtureType',
  'Universe',
  'Lamp',
  'WireUniverse',
  'SourceRange',
  'Source',
  'Network',
  'Model',
  'MachinePort',
  'Machine',
  'PixelRun',
  'Snapshot',
  'Route',
  'Control',
  'Link',
] as const;

const definitions = Object.fromEntries(RECORDS.map((name) => [name, schemas[name]]));

export const showFileSchema = JSON.parse(
  JSON.stringify({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Taxiarch show file',
    description: 'A whole show. Older versions are brought up to this one when they are read.',
    type: 'object',
    required: ['format', 'version', 'records', 'files'],
    properties: {
      format: { const: SHOW_FORMAT },
      version: { const: SHOW_VERSION },
      records: schemas.Show.properties['records'],
      files: {
        type: 'object',
        description: 'Files that the records name: SHA-256 in hexadecimal, and the bytes in base64.',
        propertyNames: { pattern: '^[0-9a-f]{64}$' },
        additionalProperties: { type: 'string', contentEncoding: 'base64' },
      },
    },
    $defs: definitions,
  }).replaceAll('#/components/schemas/', '#/$defs/'),
) as object;
