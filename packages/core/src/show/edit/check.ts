/** What a well-formed proposal looks like. Every change of a show passes here, from wherever it comes. */
import { array, lazy, mixed, number, object, string, ValidationError, type AnySchema } from 'yup';
import { completedParts, type Field } from '../../base/field';
import { ok, refuseAll, type Checked } from '../../base/result';
import { DESCRIPTIONS, KINDS, MOST_FAULTS, checkWith, isRightAtSight, type AnyRecord, type Kind } from '../records';
import type { ProposedEdit } from './edit';

/** Most changes that one edit may hold. */
const MOST_CHANGES = 100_000;

const id = string().strict().typeError('The id must be text.').max(80, 'The id may have at most 80 characters.');

/** A change whose record follows `record`. */
const changeOf = (record: AnySchema) =>
  object({
    kind: string()
      .strict()
      .oneOf(KINDS, `The kind must be one of: ${KINDS.join(', ')}.`)
      .required('The kind is missing.'),
    id: id.required('The id is missing.'),
    rev: number().strict().integer().min(0).nullable().defined('The revision read is missing.'),
    after: record,
  }).noUnknown('A change holds only kind, id, rev and after.');

// Made once: an edit may hold many thousands.
const byKind = new Map<unknown, AnySchema>(KINDS.map((kind) => [kind, changeOf(DESCRIPTIONS[kind].rule)]));
const removal = changeOf(mixed().nullable());
const unknownKind = changeOf(mixed().required());

const changeSchema = lazy((value: unknown) => {
  const { kind, after } = (value ?? {}) as { kind?: unknown; after?: unknown };
  return after === null ? removal : (byKind.get(kind) ?? unknownKind);
});

/** A removal or a right record, as nearly all changes are. */
function isRightChange(change: unknown): boolean {
  if (typeof change !== 'object' || change === null || Object.keys(change).length !== 4) return false;
  const { kind, id: which, rev, after } = change as Record<string, unknown>;
  if (!KINDS.includes(kind as Kind) || typeof which !== 'string' || which === '' || which.length > 80) return false;
  if (rev !== null && !(Number.isInteger(rev) && (rev as number) >= 0)) return false;
  return after === null || isRightAtSight(DESCRIPTIONS[kind as Kind], after);
}

/** The faults of all changes, each at its place; undefined if there are none. */
function faultsOf(changes: readonly unknown[]): ValidationError | undefined {
  const faults: ValidationError[] = [];
  for (const [i, change] of changes.entries()) {
    if (isRightChange(change)) continue;
    const checked = checkWith(changeSchema, change);
    if (checked.ok) continue;
    const place = `changes[${i}]`;
    for (const { at, why } of checked.faults)
      faults.push(new ValidationError(why, change, at === '' ? place : `${place}.${at}`));
    if (faults.length >= MOST_FAULTS) break;
  }
  return faults.length === 0 ? undefined : new ValidationError(faults);
}

const editSchema = object({
  author: string().strict().trim().max(120).required('Say who does this: the author is missing.'),
  sentence: string()
    .strict()
    .trim()
    .max(400, 'The sentence may have at most 400 characters.')
    .required('The sentence that says what was done is missing.'),
  changes: array()
    .strict()
    .typeError('The changes must be a list.')
    .min(1, 'The edit changes nothing.')
    .max(MOST_CHANGES, `One edit changes at most ${MOST_CHANGES} records.`)
    .required('The changes are missing.')
    .test('each', (changes: readonly unknown[]) => faultsOf(changes) ?? true),
}).noUnknown('An edit holds only author, sentence and changes.');

/** A link as it was written before its two ends were machines and its answers sightings. */
function withEnds(link: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> {
  const { sourceId, machineId, well: _, ...rest } = link;
  return 'sourceId' in link ? { ...rest, senderId: sourceId, visualiserId: machineId } : link;
}

/** A change whose record has all its parts: those that came later stand at their initial values. */
function completedChange(change: unknown): unknown {
  const { kind, after } = (change ?? {}) as { kind?: Kind; after?: unknown };
  if (!KINDS.includes(kind!) || typeof after !== 'object' || after === null) return change;
  const record = after as Readonly<Record<string, unknown>>;
  const whole = completedParts(DESCRIPTIONS[kind!].parts, kind === 'link' ? withEnds(record) : record);
  return whole === after ? change : { ...(change as object), after: whole };
}

function completedEdit(given: unknown): unknown {
  const { changes } = (given ?? {}) as { changes?: unknown };
  return Array.isArray(changes) ? { ...(given as object), changes: changes.map(completedChange) } : given;
}

/** The proposal as the API takes it. */
export const proposedEdit: Field<ProposedEdit> = {
  label: 'Edit',
  unit: '',
  about: '',
  rule: editSchema,
  schema: {
    type: 'object',
    properties: {
      author: { type: 'string', minLength: 1, maxLength: 120 },
      sentence: { type: 'string', minLength: 1, maxLength: 400, description: 'What was done, in the past tense.' },
      changes: {
        type: 'array',
        minItems: 1,
        maxItems: MOST_CHANGES,
        items: {
          type: 'object',
          properties: {
            kind: { type: 'string', enum: KINDS },
            id: { type: 'string', minLength: 1, maxLength: 80 },
            rev: { type: ['integer', 'null'], description: 'Revision that was read; null to add a record.' },
            after: { type: ['object', 'null'], description: 'The record as it should be; null to remove it.' },
          },
          required: ['kind', 'id', 'rev', 'after'],
        },
      },
    },
    required: ['author', 'sentence', 'changes'],
  },
  column: 'json',
  nullable: false,
  optional: false,
  completes: completedEdit,
};

/** Faults are told with the place of each; of a record named twice, the second. */
export function checkProposedEdit(input: unknown): Checked<ProposedEdit> {
  const checked = checkWith<ProposedEdit>(editSchema, completedEdit(input));
  return checked.ok ? refuseDoubles(checked.value) : checked;
}

/** What the shape of an edit cannot say: a record keeps its id, and is named once. */
export function refuseDoubles(edit: ProposedEdit): Checked<ProposedEdit> {
  const seen = new Set<string>();
  for (const [i, { kind, id: which, after }] of edit.changes.entries()) {
    const fault = (why: string) => refuseAll([{ at: `changes[${i}]`, why }]);
    if (after !== null && (after as AnyRecord).id !== which) return fault('A record’s id cannot be changed.');
    const key = `${kind} ${which}`;
    if (seen.has(key)) return fault('One record is named twice in this edit.');
    seen.add(key);
  }
  return ok(edit);
}
