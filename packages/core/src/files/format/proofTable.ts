import type { ProofContent } from '../../proving/proof';
import { tableOf, writeTable } from './table';

/** The lamps of a record of proof as a table (RFC 4180). */
export const writeProofTable = ({ places }: ProofContent): string =>
  writeTable(
    tableOf(
      [
        'Place',
        'Number',
        'Name',
        'Address',
        'Type',
        'Mode',
        'State',
        'Known',
        'By',
        'At',
        'Why',
        'Note',
        'Changed since',
        'Answers',
      ],
      places.flatMap(({ place, lamps }) =>
        lamps.map((one) => [
          place,
          one.number,
          one.name,
          one.address,
          one.type,
          one.mode,
          one.state,
          one.known,
          one.by,
          one.at,
          one.why,
          one.note,
          one.changed.join('; '),
          one.answers,
        ]),
      ),
    ),
  );
