/** A record of proof that was signed: what it speaks of stands in a file of its own, named by its checksum. */
import { list, name, oneOf, pattern, shape, text, whole, type Of } from '../../base/field';
import { kindOf, type RecordFrom } from './kind';

export const PROOF_PARTS = [
  'lamps',
  'failed',
  'not known',
  'nodes',
  'addresses',
  'ports',
  'universes',
  'pixels',
  'switches',
  'what if',
] as const;
export type ProofPart = (typeof PROOF_PARTS)[number];

const signature = shape('Signature', {
  name: name('Name', { what: 'The name' }),
  role: text('Role', 120),
  words: text('Words', 2000),
});

const checksum = pattern('SHA-256', 64, /^[0-9a-f]{64}$/, 'A SHA-256 is 64 hexadecimal digits.');
const proofFile = shape('File', { ending: text('Ending', 10), sha256: checksum });
export interface ProofFile extends Of<typeof proofFile.fields> {}

export const proof = kindOf(
  { one: 'record of proof', many: 'records of proof', table: 'proof', schemaName: 'Proof' },
  {
    at: text('Time', 40, { about: 'ISO 8601, UTC.' }),
    signed: signature,
    /** Number of the edit that it speaks of */
    seq: whole('Edit', 0, Number.MAX_SAFE_INTEGER),
    sha256: checksum,
    /** What was made of it then: paper and tables, by the endings of their names */
    files: list<ProofFile>('Files', proofFile, 10, { what: 'The files' }),
    parts: list('Parts', oneOf('Part', PROOF_PARTS), PROOF_PARTS.length, { what: 'The parts' }),
    sentence: text('Sentence', 400),
  },
);

export interface Proof extends RecordFrom<typeof proof> {}
