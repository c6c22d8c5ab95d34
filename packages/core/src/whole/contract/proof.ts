/** The record of proof and labels, over HTTP. */
import {
  atLeastOne,
  begun,
  flag,
  list,
  name,
  oneOf,
  orNull,
  plain,
  report,
  shape,
  text,
  whole,
  words,
} from '../../base/field';
import { DESCRIPTIONS, PROOF_PARTS, type Proof } from '../../show/records';
import { LABEL_KINDS, LABEL_SHEETS, PAPERS } from '../../proving/proof';
import { at } from './endpoint';

export const PROOF_FORMATS = ['pdf', 'html', 'csv', 'json'] as const;
export type ProofFormat = (typeof PROOF_FORMATS)[number];

const format = oneOf('Format', PROOF_FORMATS);
const parts = atLeastOne(
  list('Parts', oneOf('Part', PROOF_PARTS), PROOF_PARTS.length, { what: 'The parts' }),
  'Choose at least one part.',
);
const paper = begun(oneOf('Paper', PAPERS, { about: 'Of the PDF.' }), 'A4');
const proof = plain<Proof>(DESCRIPTIONS.proof.schema);

const checked = report('Checked', {
  sha256: words('Of the file that was given.'),
  says: words('In a sentence.'),
  proof: orNull(proof),
});

export const PROOF_ENDPOINTS = {
  draftProof: at('draftProof', {
    says: 'A record of proof as it would be now, not signed and not kept.',
    body: shape('Request', { format, parts, paper }),
    reply: { file: 'application/octet-stream' },
    problems: ['not-understood', 'not-ready'],
  }),
  signProof: at('signProof', {
    says: 'Make a record of proof, sign it and keep it; it is never changed.',
    body: shape('Request', {
      name: name('Name', { what: 'The name' }),
      role: text('Role', 120),
      words: text('Words', 2000),
      parts,
      paper,
    }),
    reply: proof,
    status: 201,
    problems: ['not-understood', 'not-ready'],
  }),
  exportProof: at('exportProof', {
    says: 'A signed record of proof, as it was made when it was signed.',
    params: { proof: words(), format },
    reply: { file: 'application/octet-stream' },
    problems: ['not-here'],
  }),
  checkProof: at('checkProof', {
    says: 'Whether a file is one of a signed record of proof, byte by byte.',
    body: { file: 'application/octet-stream' },
    reply: checked,
    problems: ['not-understood', 'too-large'],
  }),
  exportLabels: at('exportLabels', {
    says: 'Labels with a name, a place, an address and a picture to be scanned, on a sheet of labels.',
    body: shape('Request', {
      what: oneOf('What', LABEL_KINDS),
      ids: list('Which', text('Id', 80), 5000),
      sheet: oneOf('Sheet', LABEL_SHEETS),
      /** Places on the first sheet that are used already */
      skip: whole('Skip', 0, 200),
      /** Where the pictures lead: the address under which this server is met */
      base: text('Address', 200),
      cases: flag('Cases', { about: 'A label for the case beside each.' }),
    }),
    reply: { file: 'application/pdf' },
    problems: ['not-understood', 'not-possible'],
  }),
} as const;
