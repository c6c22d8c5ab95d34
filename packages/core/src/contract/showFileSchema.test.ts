import { nightFerry } from '@taxiarch/core/demo';
import { KINDS } from '@taxiarch/core/records';
import { showFileSchema } from './showFileSchema';

interface Schema {
  readonly properties: { readonly records: { readonly properties: Record<string, { items: { $ref: string } }> } };
  readonly $defs: Record<string, { properties: Record<string, unknown>; required: string[] }>;
}
const schema = showFileSchema as unknown as Schema;

test('every part of every record of the demo show stands in it', () => {
  for (const kind of KINDS) {
    const name = schema.properties.records.properties[kind]!.items.$ref.replace('#/$defs/', '');
    const { properties, required } = schema.$defs[name]!;
    for (const record of nightFerry()[kind]) {
      expect(Object.keys(properties)).toEqual(expect.arrayContaining(Object.keys(record)));
      expect(Object.keys(record)).toEqual(expect.arrayContaining(required));
    }
  }
});
