/** What a well-formed record looks like. Every record that enters a show passes here, from wherever it comes. */
import { array, lazy, mixed, number, object, string, ValidationError, type AnySchema } from 'yup';
import { SHOW_UNIVERSE_LAST, SLOTS, lastWireNumber, type Protocol } from '../address';
import { FIXTURE_KINDS } from '../fixture';
import {
  flag,
  ipv4,
  list,
  metres,
  name,
  oneOf,
  placeId,
  protocol,
  row,
  showUniverse,
  text,
  whole,
  wireNumber,
  wireUniverse,
} from './fields';
import { machine, model, network, snapshot } from './machineSchema';
import { DELIVERIES, KINDS, TAGS, PENNANT_CUTS, PENNANT_FILLS, type AnyRecord, type Kind } from './records';
import { control, link, route } from './routingSchema';
import type { ProposedChange, ProposedEdit } from './edit';

/** Name of a kept file: its SHA-256 in hexadecimal. */
const keptFile = text('The file', 64)
  .matches(/^[0-9a-f]{64}$/, 'A kept file is named by 64 hexadecimal digits.')
  .nullable()
  .defined('The file is missing.');

const address = object({ universe: showUniverse, channel: whole('The channel', 1, SLOTS) }).noUnknown();
const point = (what: string) =>
  object({ x: metres(`${what}, x`), y: metres(`${what}, y`), z: metres(`${what}, z`) }).noUnknown();

const channel = object({
  attribute: name('The attribute'),
  offsets: list('The offsets', whole('An offset', 1, SLOTS), 3).min(1, 'A channel takes at least one slot.'),
  default: whole('The default', 0, 0xffffff),
  highlight: whole('The highlight', 0, 0xffffff),
  cell: number().strict().integer().min(1).optional(),
  block: number().strict().integer().min(1).max(64).optional(),
  ranges: array()
    .strict()
    .of(
      object({
        name: text('The range’s name', 120).defined(),
        from: whole('A range’s begin', 0, 0xffffff),
        to: whole('A range’s end', 0, 0xffffff),
      }).noUnknown(),
    )
    .max(256, 'A channel has at most 256 ranges.')
    .optional(),
}).noUnknown();

/** Most universes that one line of a sender's table holds. */
const MOST_IN_RANGE = 4096;

const range = object({
  from: showUniverse,
  count: whole('How many universes', 1, MOST_IN_RANGE).test(
    'fits',
    `Universes end at ${SHOW_UNIVERSE_LAST}.`,
    (count, { parent }) => (parent as { from: number }).from + count - 1 <= SHOW_UNIVERSE_LAST,
  ),
  to: wireUniverse
    .nullable()
    .test('fits', 'The last of them would lie beyond what the protocol can number.', (to, at) => {
      const { count } = at.parent as { count: number };
      return to === null || to.number + count - 1 <= lastWireNumber(to.protocol as Protocol);
    }),
  interface: text('The interface', 120).defined('The interface is missing.'),
  delivery: oneOf('The delivery', DELIVERIES),
  addresses: list('The addresses', ipv4.required('An address is empty.'), 256).when('delivery', ([way], schema) =>
    way === 'unicast' ? schema.min(1, 'Say to which addresses unicast goes.') : schema,
  ),
  rate: whole('The rate', 1, 1000),
  priority: whole('The priority', 0, 200),
  slotPriority: flag('The priority for each slot'),
  on: flag('On'),
  whenIdle: flag('Sending when idle'),
  note: text('The note', 400).defined('The note is missing.'),
}).noUnknown();

const SCHEMAS: Readonly<Record<Kind, AnySchema>> = {
  show: object({
    ...row,
    name: name('The show’s name'),
    about: text('The description', 2000).defined(),
    file: keptFile,
  }),
  place: object({ ...row, name: name('The place’s name'), order: whole('The order', 0, 100_000) }),
  type: object({
    ...row,
    maker: name('The maker'),
    name: name('The type’s name'),
    kind: oneOf('The kind', FIXTURE_KINDS),
    file: keptFile,
    modes: list(
      'The modes',
      object({ name: name('The mode’s name'), channels: list('The channels', channel, SLOTS) }).noUnknown(),
      100,
    ).min(1, 'A type has at least one mode.'),
  }),
  universe: object({
    ...row,
    number: showUniverse,
    name: text('The universe’s name', 120).defined(),
    protocol,
    wire: wireNumber,
    merge: oneOf('The merge', ['htp', 'ltp']),
  }),
  lamp: object({
    ...row,
    number: whole('The lamp’s number', 1, 999_999),
    name: name('The lamp’s name'),
    typeId: text('The type', 80).required('The type is missing.'),
    mode: name('The mode'),
    universe: showUniverse,
    channel: whole('The channel', 1, SLOTS),
    blocks: list('The further addresses', address, 63),
    placeId,
    groups: list('The groups', name('The group’s name'), 20),
    tag: string().strict().oneOf(TAGS, 'The tag is not one that we know.').defined('The tag is missing.'),
    twin: text('The twin', 80).nullable().defined('The twin is missing.'),
    locked: flag('The lock'),
    x: metres('x'),
    y: metres('y'),
    z: metres('z'),
  }),
  source: object({
    ...row,
    name: name('The source’s name'),
    address: ipv4.defined(),
    ranges: list('The ranges', range, 512),
    pennant: object({
      letter: string().strict().length(1, 'A pennant has one letter.').required(),
      cut: oneOf('The cut', PENNANT_CUTS),
      fill: oneOf('The fill', PENNANT_FILLS),
    }).noUnknown(),
  }),
  network,
  model,
  machine,
  run: object({
    ...row,
    number: whole('The run’s number', 1, 999_999),
    name: name('The run’s name'),
    count: whole('The count of pixels', 1, 20_000),
    order: text('The order', 5)
      .matches(/^(?!.*(.).*\1)[RGBWA]{1,5}$/, 'The order is made of the letters R, G, B, W and A, each once at most.')
      .required('The order is missing.'),
    bits: number().strict().oneOf([8, 16], 'A colour has 8 or 16 bits.').required(),
    perUniverse: number().strict().oneOf([510, 512], 'A universe carries 510 or 512 channels of pixels.').required(),
    whole: flag('Keeping pixels whole'),
    start: lazy((value: unknown) =>
      (value as { kind?: unknown } | null)?.kind === 'at'
        ? object({ kind: oneOf('The start', ['at']), ...address.fields }).noUnknown()
        : object({ kind: oneOf('The start', ['after', 'at', 'controller']) }).noUnknown(),
    ),
    reversed: flag('The direction'),
    nulls: whole('The null pixels', 0, 10_000),
    nullsSent: flag('Sending null pixels'),
    machineId: text('The controller', 80).nullable().defined('The controller is missing.'),
    output: number().strict().integer().min(1).max(1024).nullable().defined('The output is missing.'),
    placeId,
    from: point('The first pixel'),
    to: point('The last pixel'),
  }),
  snapshot,
  route,
  control,
  link,
};

/** Most changes that one edit may hold. */
const MOST_CHANGES = 100_000;

const changeSchema = lazy((value: unknown) => {
  const kind = (value as { kind?: Kind } | null)?.kind;
  const record = kind !== undefined && KINDS.includes(kind) ? SCHEMAS[kind] : mixed().required();
  return object({
    kind: oneOf('The kind', KINDS),
    id: row.id,
    rev: number().strict().integer().min(0).nullable().defined('The revision read is missing.'),
    after: (value as { after?: unknown } | null)?.after === null ? mixed().nullable() : record,
  }).noUnknown('A change holds only kind, id, rev and after.');
});

const editSchema = object({
  author: name('The author'),
  sentence: text('The sentence', 400).trim().required('The sentence that says what was done is missing.'),
  changes: array()
    .strict()
    .typeError('The changes must be a list.')
    .of(changeSchema)
    .min(1, 'The edit changes nothing.')
    .max(MOST_CHANGES)
    .required('The changes are missing.'),
}).noUnknown();

/** A proposal as it should be, or sentences that say what is wrong with it, each with its place. */
export type Checked<T> = { ok: true; value: T } | { ok: false; faults: readonly { at: string; why: string }[] };

/** Validates against a Yup schema; never throws for bad input. */
export function checkWith<T>(schema: { validateSync: AnySchema['validateSync'] }, input: unknown): Checked<T> {
  try {
    return { ok: true, value: schema.validateSync(input, { abortEarly: false, strict: true }) as T };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return { ok: false, faults: inner.slice(0, 20).map((fault) => ({ at: fault.path ?? '', why: fault.message })) };
  }
}

export function checkProposedEdit(input: unknown): Checked<ProposedEdit> {
  const checked = checkWith<ProposedEdit>(editSchema, input);
  if (!checked.ok) return checked;
  const crossed = checked.value.changes.find(
    (change: ProposedChange) => change.after !== null && (change.after as AnyRecord).id !== change.id,
  );
  if (crossed) return { ok: false, faults: [{ at: 'changes', why: 'A record’s id cannot be changed.' }] };
  return checked;
}

/** Checks one record, as a form does before it is sent. */
export const checkRecord = (kind: Kind, record: unknown): Checked<AnyRecord> => checkWith(SCHEMAS[kind], record);
