/** Levels by address, as a request to take slots holds them. */
import { lazy, number, object } from 'yup';
import type { Field } from '../../base/field';

/** Most addresses or runs of one request. */
const MOST_RANGES = 20_000;

const level = number()
  .strict()
  .typeError('Levels are whole numbers.')
  .integer('Levels are whole numbers.')
  .min(0, 'Levels begin at 0.')
  .max(255, 'Levels end at 255.')
  .nullable()
  .defined('A level is missing.');

const isMap = (value: unknown): value is object => typeof value === 'object' && value !== null && !Array.isArray(value);

export const takenLevels: Field<Readonly<Record<string, number | null>>> = {
  label: 'Slots',
  unit: '',
  about: '',
  rule: lazy((value: unknown) =>
    object(isMap(value) ? Object.fromEntries(Object.keys(value).map((key) => [key, level])) : {})
      .typeError('The slots must be levels by address.')
      .required('Say which slots: “slots” is missing.')
      .test('some', 'Name at least one slot to take.', (slots) => Object.keys(slots).length > 0)
      .test(
        'few',
        `One request takes at most ${MOST_RANGES} runs of slots.`,
        (slots) => Object.keys(slots).length <= MOST_RANGES,
      ),
  ) as never,
  schema: {
    type: 'object',
    minProperties: 1,
    maxProperties: MOST_RANGES,
    additionalProperties: { type: ['integer', 'null'], minimum: 0, maximum: 255 },
    description: 'Levels by address or run: `3/47`, `3/1-24`; null takes a slot as it is received now.',
  },
  column: 'json',
  nullable: false,
  optional: false,
};
