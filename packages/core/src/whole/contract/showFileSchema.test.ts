import { nightFerry } from '@taxiarch/core/whole/demo';
import { readShowFile, writeShowFile } from '@taxiarch/core/files/format';
import { KINDS } from '@taxiarch/core/show/records';
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

/** JSON Schema as far as the published one uses it; says whether a value follows it. */
function follows(value: unknown, rule: Record<string, unknown>): boolean {
  const each = (key: string) => rule[key] as Record<string, unknown>[] | undefined;
  if (typeof rule['$ref'] === 'string') {
    const name = rule['$ref'].replace('#/$defs/', '');
    return follows(value, schema.$defs[name] as unknown as Record<string, unknown>);
  }
  const types = ([] as unknown[]).concat(rule['type'] ?? []);
  const is: Record<string, boolean> = {
    null: value === null,
    string: typeof value === 'string',
    boolean: typeof value === 'boolean',
    number: typeof value === 'number',
    integer: Number.isInteger(value),
    array: Array.isArray(value),
    object: typeof value === 'object' && value !== null && !Array.isArray(value),
  };
  if (types.length > 0 && !types.some((type) => is[type as string])) return false;
  if ('const' in rule && value !== rule['const']) return false;
  if ('enum' in rule && !(rule['enum'] as unknown[]).includes(value)) return false;
  if (each('oneOf') && each('oneOf')!.filter((one) => follows(value, one)).length !== 1) return false;
  if (each('anyOf') && !each('anyOf')!.some((one) => follows(value, one))) return false;
  if (each('allOf') && !each('allOf')!.every((one) => follows(value, one))) return false;
  if ('if' in rule) {
    const branch = follows(value, rule['if'] as Record<string, unknown>) ? rule['then'] : rule['else'];
    if (branch && !follows(value, branch as Record<string, unknown>)) return false;
  }
  const within = (number: number, least: string, most: string) =>
    !(least in rule && number < (rule[least] as number)) && !(most in rule && number > (rule[most] as number));
  if (typeof value === 'number') return within(value, 'minimum', 'maximum');
  if (typeof value === 'string')
    return (
      within(value.length, 'minLength', 'maxLength') &&
      !('pattern' in rule && !new RegExp(rule['pattern'] as string, 'u').test(value))
    );
  if (Array.isArray(value))
    return (
      within(value.length, 'minItems', 'maxItems') &&
      value.every((one) => !('items' in rule) || follows(one, rule['items'] as Record<string, unknown>))
    );
  if (!is['object']) return true;
  const given = value as Record<string, unknown>;
  const parts = (rule['properties'] ?? {}) as Record<string, Record<string, unknown>>;
  return (
    ((rule['required'] ?? []) as string[]).every((key) => key in given) &&
    Object.entries(given).every(([key, one]) =>
      key in parts ? follows(one, parts[key]!) : rule['additionalProperties'] !== false,
    )
  );
}

const file = () =>
  JSON.parse(writeShowFile(nightFerry(), {})) as { records: Record<string, Record<string, unknown>[]> };
const verdicts = (alter: (records: Record<string, Record<string, unknown>[]>) => void) => {
  const made = file();
  alter(made.records);
  return [follows(made, showFileSchema as Record<string, unknown>), readShowFile(JSON.stringify(made)).ok];
};

test('the demo show follows it, and is read', () => expect(verdicts(() => undefined)).toEqual([true, true]));

test.each<[string, (records: Record<string, Record<string, unknown>[]>) => void]>([
  ['a name that begins with a space', ({ lamp }) => (lamp![0]!['name'] = ' A')],
  ['a name with a NUL', ({ lamp }) => (lamp![0]!['name'] = 'A\0B')],
  ['text with a NUL', ({ lamp }) => (lamp![0]!['function'] = 'A\0')],
  ['half an address', ({ lamp }) => (lamp![0]!['channel'] = 0)],
  ['a part that is not known', ({ lamp }) => (lamp![0]!['colour'] = 'red')],
  ['a part that is missing', ({ lamp }) => delete lamp![0]!['mode']],
  ['two shows', ({ show }) => show!.push({ ...show![0]!, id: 'other' })],
  ['no show', (records) => (records['show'] = [])],
  ['sACN 0', ({ universe }) => Object.assign(universe![0]!, { protocol: 'sacn', wire: 0 })],
  ['Art-Net 32768', ({ universe }) => Object.assign(universe![0]!, { protocol: 'artnet', wire: 32768 })],
  ['a number that is text', ({ lamp }) => (lamp![0]!['number'] = '7')],
])('%s is refused by the schema and by the reader', (_, alter) => expect(verdicts(alter)).toEqual([false, false]));
