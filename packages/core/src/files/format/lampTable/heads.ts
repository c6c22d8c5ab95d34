/** Where the heads of a table stand, and what its columns mean. */
import type { Sheet, SheetRow } from './sheet';

/** What a column can mean. */
export const COLUMNS = [
  'number',
  'written',
  'name',
  'maker',
  'type',
  'mode',
  'address',
  'universe',
  'channel',
  'place',
  'group',
  'unit',
  'position',
  'class',
  'function',
  'x',
  'y',
  'z',
  'gel',
  'circuit',
  'notes',
] as const;
export type Column = (typeof COLUMNS)[number];

/** Heads that mean one thing, wherever they stand */
const SURE: Readonly<Record<Column, RegExp>> = {
  number:
    /^((fixture|lamp|spot|light|head) )?(no|nr|num|number|id|#|nummer)$|^fid$|^(fixture|lamp) (no|nr|number|id|#)$|^kreis$|^№$/,
  written: /^number as written$/,
  name: /^((fixture|lamp|channel) )?(name|label|description|bezeichnung|nom|nombre)$/,
  maker: /^(maker|manufacturer|make|brand|mfr|hersteller|marque|fabricant|fabricante)$/,
  type: /^((fixture|lamp|instrument|device|luminaire) )?(type|model|typ|modele|tipo)$|^(instrument|luminaire|gerat|geratetyp)$/,
  mode: /^((dmx|fixture) )?(mode|modus|modo)$|^personality$/,
  address:
    /^(dmx |patch )?(address|addr|adresse|direccion)$|^(dmx|patch|start address|dmx start|dmx start address|startadresse|dmx patch|universe address|universe channel|univ addr|absolute|absolute address|dimmer)$/,
  universe: /^((dmx|artnet|sacn|art net) )?(universe|univ|uni|universum|univers|universo)$|^u$/,
  channel: /^(dmx|start) (channel|chan|ch|slot|kanal)$|^(slot|kanal|dmx from)$/,
  place: /^(place|location|layer|area|zone|ort|room|deck)$/,
  group: /^(group|groups|gruppe|groupe|grupo)$/,
  unit: /^unit( ?(no|nr|number|id|#))?$|^u ?#$/,
  position: /^((hanging|hang|rigging) )?(position|pos|point)$|^(hang|truss|pipe|bar|boom)$/,
  class: /^(class|klasse|classe)$/,
  function: /^(function|purpose|use|funktion|fonction)$/,
  x: /^(pos(ition)? )?x( m| cm| mm| ft| in)?$/,
  y: /^(pos(ition)? )?y( m| cm| mm| ft| in)?$/,
  z: /^(pos(ition)? )?z( m| cm| mm| ft| in)?$|^(height|trim)( m| cm| mm| ft)?$/,
  gel: /^(gel|gels|colou?r|colou?r filter|filter|farbe|farbfilter|couleur)$/,
  circuit: /^(circuit|circuits|circ|ckt|stromkreis|circuito)( ?(no|nr|number|name|#))?$/,
  notes: /^(note|notes|remark|remarks|comment|comments|bemerkung|bemerkungen|remarque|remarques|notas)$/,
};

/** Heads that mean different things in different houses */
const CHANNEL_HEAD = /^(channel|chan|ch|kanal|canal)$/;
/** How many slots a lamp takes: of its modes, the one of that size */
const SIZE_HEAD =
  /^((dmx|number of|no of) )?(channels|channel count|channels count|footprint|slots|ch count)$|^dmx footprint$/;
const FIXTURE_HEAD = /^(fixture|fix|lamp|light|projecteur|scheinwerfer|lampe)$/;

/** A head as it is compared: small, without accents, signs and double spaces; `No.` and `#` stay what they say. */
const plainHead = (head: string): string =>
  head
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}#№]+/gu, ' ')
    .trim();

const NONE_HIDDEN: ReadonlySet<number> = new Set();

/** The surest meaning of a head by itself. */
const sureColumn = (head: string): Column | undefined => {
  const plain = plainHead(head);
  return plain === '' ? undefined : COLUMNS.find((column) => SURE[column].test(plain));
};

const isHead = (head: string): boolean => {
  const plain = plainHead(head);
  return sureColumn(head) !== undefined || [CHANNEL_HEAD, FIXTURE_HEAD, SIZE_HEAD].some((meant) => meant.test(plain));
};

/** Whether most of what stands in a column is a number. */
function isNumeric(values: readonly string[]): boolean {
  const filled = values.filter((value) => value !== '');
  return filled.length > 0 && filled.filter((value) => /^\d+$/.test(value)).length * 2 > filled.length;
}

/**
 * A first reading of what each column means, by its head, and where that can mean several things by the other heads and
 * what stands below; null for columns that are left out. `sample` are rows of the table.
 */
export function guessColumns(
  heads: readonly string[],
  sample: readonly (readonly string[])[] = [],
  hidden: ReadonlySet<number> = NONE_HIDDEN,
): (Column | null)[] {
  // What is out of sight means nothing until somebody says so.
  if (hidden.size > 0)
    return guessColumns(
      heads.map((head, i) => (hidden.has(i) ? '' : head)),
      sample,
    );
  const taken = new Set<Column>();
  const claim = (column: Column | undefined): Column | null => {
    if (!column || taken.has(column)) return null;
    taken.add(column);
    return column;
  };
  const columns = heads.map((head) => claim(sureColumn(head)));
  const values = (at: number) => sample.map((row) => row[at] ?? '');
  heads.forEach((head, i) => {
    if (columns[i]) return;
    const plain = plainHead(head);
    if (CHANNEL_HEAD.test(plain)) {
      // Beside an address it is what the desk calls the lamp; beside a universe alone it is where the lamp begins.
      const desk = taken.has('address') || !taken.has('universe') || taken.has('channel');
      columns[i] = claim(desk && !taken.has('number') ? 'number' : 'channel');
    } else if (FIXTURE_HEAD.test(plain))
      columns[i] = claim(isNumeric(values(i)) || taken.has('type') ? 'number' : 'type');
  });
  if (!taken.has('mode')) {
    const size = heads.findIndex((head, i) => !columns[i] && SIZE_HEAD.test(plainHead(head)));
    if (size >= 0) columns[size] = claim('mode');
  }
  // Where nothing else is the number, the number of the unit is.
  if (!taken.has('number')) {
    const unit = columns.indexOf('unit');
    if (unit >= 0 && isNumeric(values(unit))) columns[unit] = 'number';
  }
  return columns;
}

/** Where a table begins within its sheet. */
export interface Heads {
  /** Places of the rows that are heads, among the rows of the sheet */
  readonly from: number;
  readonly to: number;
  readonly heads: readonly string[];
}

/** Rows that are looked through for heads */
const MOST_LOOKED = 60;
const MOST_HEAD_ROWS = 3;

/** Several rows of heads as one: what reaches over several columns stands in the first of them. */
function joinHeads(rows: readonly SheetRow[]): string[] {
  const width = Math.max(...rows.map(({ cells }) => cells.length));
  const lines = rows.map(({ cells }, i) => {
    if (i === rows.length - 1) return Array.from({ length: width }, (_, at) => cells[at] ?? '');
    let last = '';
    return Array.from({ length: width }, (_, at) => (last = cells[at] || last));
  });
  return Array.from({ length: width }, (_, at) => {
    const parts = lines.map((line) => line[at]!);
    const own = parts[parts.length - 1]!;
    const whole = parts.filter((part) => part !== '').join(' ');
    // What stands over it is said only where it helps to understand it.
    if (own === '') return '';
    return isHead(whole) ? whole : own;
  });
}

const score = (heads: readonly string[]): number => new Set(heads.filter(isHead).map(plainHead)).size;

/** Finds the heads among titles and notes; undefined if no row has two heads that are understood. */
export function findHeads({ rows }: Pick<Sheet, 'rows'>): Heads | undefined {
  let best: { heads: Heads; score: number } | undefined;
  for (let from = 0; from < Math.min(rows.length, MOST_LOOKED); from += 1)
    for (let count = 1; count <= MOST_HEAD_ROWS && from + count <= rows.length; count += 1) {
      const its = rows.slice(from, from + count);
      // What is numbered is a row of the table already.
      if (its.some(({ cells }) => cells.some((cell) => /^\d+([./]\d+)?$/.test(cell)))) break;
      const heads = joinHeads(its);
      const found = score(heads);
      if (found >= 2 && (!best || found > best.score))
        best = { heads: { from, to: from + count, heads }, score: found };
    }
  return best?.heads;
}

/** What two tables that are read alike have in common: their heads, in their order. */
export const headsKey = (heads: readonly string[]): string => heads.map(plainHead).join('|');
