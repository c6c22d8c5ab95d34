/** The record of proof: it says no more than is known, the same in every form, and what differs from the one before. */
import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { writeProofTable } from '../../files/format';
import { rigOf } from '../../rig/patch';
import { PLAIN_MARK, PROOF_PARTS, type Mark, type ProofPart, type ShowRecords, type Walk } from '../../show/records';
import { StoodNow } from '../walk';
import {
  SHEETS,
  columnWidths,
  LABEL_EDGE,
  LABEL_KINDS,
  LABEL_SHEETS,
  layLabel,
  PAPER_SIZES,
  paperOf,
  tableSize,
  textWidth,
  wrap,
  differencesOfProofs,
  labelsOf,
  placed,
  proofBlocks,
  proofContent,
  proofHtml,
  proofJson,
  type Block,
  type ProofContent,
} from '.';

const ferry = nightFerry();
const { patch } = rigOf(ferry);
const lampId = (number: number) => patch.all().find((one) => one.lamp.number === number)!.lamp.id;
const mark = (number: number, over: Partial<Mark> = {}): Mark => ({
  ...{ ...PLAIN_MARK, id: `m${number}${over.at ?? ''}`, rev: 2, walkId: 'w', lampId: lampId(number), result: 'proved' },
  ...{ by: 'Mira', at: '2026-11-26T18:01:00Z', knew: 9 },
  ...over,
});
const content = (
  marks: readonly Mark[] = [],
  parts: readonly ProofPart[] = PROOF_PARTS,
  over: Partial<ShowRecords> = {},
): ProofContent => {
  const records = { ...ferry, walk: [{ id: 'w' } as Walk], mark: marks, ...over };
  return proofContent({
    ...{
      records,
      patch: rigOf(records).patch,
      seq: 12,
      at: '2026-11-26T19:00:00Z',
      parts,
      entries: [],
      rows: [],
      failures: [],
    },
    stood: new StoodNow(records, undefined, []),
  });
};
const lampIn = ({ places }: ProofContent, number: number) =>
  places.flatMap(({ lamps }) => lamps).find((one) => one.number === number)!;

test('nobody has looked: nothing is proved, and that is said first', () => {
  const drawn = content();
  expect(drawn.sentence).toBe(
    `0 of ${patch.all().length} lamps proved by people who looked, 0 failed, ${patch.all().length} not known.`,
  );
  expect(lampIn(drawn, 101)).toMatchObject({ state: 'untried', known: 'not known', by: '' });
  expect(drawn.notKnown[0]).toBe(`Nobody has looked at ${patch.all().length} of ${patch.all().length} lamps.`);
  expect(drawn.notKnown).toContain('No lamp was asked how it is set.');
});

test('who looked, when, and how it is known; what changed since counts as not known', () => {
  const moved = ferry.lamp.map((one) => (one.number === 102 ? { ...one, rev: 11 } : one));
  const drawn = content(
    [mark(101), mark(102), mark(103, { result: 'failed', why: 'flickers', note: 'socket' })],
    PROOF_PARTS,
    { lamp: moved },
  );
  expect(lampIn(drawn, 101)).toMatchObject({
    state: 'proved',
    known: 'seen',
    by: 'Mira',
    at: '2026-11-26T18:01:00Z',
    changed: [],
  });
  expect(lampIn(drawn, 102)).toMatchObject({
    state: 'proved',
    known: 'not known',
    changed: [ferry.lamp.find(({ number }) => number === 102)!.name],
  });
  expect(lampIn(drawn, 103)).toMatchObject({ state: 'failed', known: 'seen', why: 'flickers', note: 'socket' });
  expect(drawn.sentence).toMatch(/^1 of \d+ lamps proved by people who looked, 1 failed, /);
  expect(drawn.notKnown).toContain('1 lamps were looked at before something on their path changed.');
});

test('the page of a place counts as proved only what still is', () => {
  const moved = ferry.lamp.map((one) => (one.number === 102 ? { ...one, rev: 11 } : one));
  const drawn = content([mark(101), mark(102)], PROOF_PARTS, { lamp: moved });
  const { place, lamps } = drawn.places.find(({ lamps: all }) => all.some(({ number }) => number === 102))!;
  const blocks = proofBlocks(drawn, '');
  const at = blocks.findIndex((block) => block.kind === 'heading' && block.text === place);
  expect(blocks[at + 1]).toMatchObject({
    text: `1 of ${lamps.length} proved, 0 failed, ${lamps.length - 1} not known.`,
  });
  const table = blocks[at + 2] as Extract<Block, { kind: 'table' }>;
  expect(table.rows.map(([number]) => number)).toEqual(['101', '102']);
  const [, moved102] = table.rows;
  expect(moved102).toContain('proved, before a change');
  expect(moved102![1]).toContain(`Changed since: ${ferry.lamp.find(({ number }) => number === 102)!.name}`);
  // Lamps that nobody checked take a line each.
  const list = blocks[at + 4] as Extract<Block, { kind: 'list' }>;
  expect(list.items).toHaveLength(lamps.length - 2);
});

test('what failed, and what became of it', () => {
  const drawn = content([
    mark(101, { result: 'failed', why: 'dark', at: '2026-11-26T17:00:00Z' }),
    mark(101, { by: 'Jory' }),
    mark(102, { result: 'failed', why: 'wrong colour' }),
  ]);
  expect(drawn.failed.map(({ lamp, why, then }) => [lamp.split(' ')[0], why, then])).toEqual([
    ['101', 'dark', 'proved by Jory, 2026-11-26 18:01'],
    ['102', 'wrong colour', 'still so'],
  ]);
});

test('every lamp stands in one place, in the order of the places', () => {
  const { places } = content();
  expect(places.flatMap(({ lamps }) => lamps)).toHaveLength(patch.all().length);
  const order = [...ferry.place].sort((a, b) => a.order - b.order).map(({ name }) => name);
  expect(places.map(({ place }) => place).filter((one) => one !== 'No place')).toEqual(
    order.filter((one) => places.some(({ place }) => place === one)),
  );
});

test('only the chosen parts', () => {
  const drawn = content([], ['ports']);
  expect([drawn.places, drawn.universes, drawn.switches].map((one) => one.length)).toEqual([0, 0, 0]);
  expect(drawn.ports.length).toBeGreaterThan(10);
  const words = proofBlocks(drawn, '').flatMap((block) => (block.kind === 'heading' ? [block.text] : []));
  expect(words).toEqual(['Ports']);
});

test('paper, table and JSON say the same of each lamp; the same content has the same bytes', () => {
  const drawn = content([mark(101), mark(103, { result: 'failed', why: 'flickers' })]);
  expect(proofJson(drawn)).toBe(proofJson(JSON.parse(proofJson(drawn)) as ProofContent));
  const csv = writeProofTable(drawn).trim().split('\r\n');
  expect(csv).toHaveLength(patch.all().length + 1);
  const blocks = proofBlocks(drawn, '');
  const rows = blocks.flatMap((block) =>
    block.kind === 'table' && block.head[0] === 'No.' && block.head[1] === 'Lamp' ? block.rows : [],
  );
  const unchecked = blocks.flatMap((block) => (block.kind === 'list' ? block.items : []));
  expect(rows.map(([number]) => number)).toEqual(['101', '103']);
  expect(rows.length + unchecked.length).toBe(patch.all().length);
  expect(rows.find(([number]) => number === '103')).toContain('failed: flickers');
  expect(csv.find((line) => line.split(',')[1] === '103')).toContain('failed,seen,Mira');
});

test('failures and open points come before the contents, on page 1', () => {
  const many = patch
    .all()
    .slice(0, 14)
    .map(({ lamp }) => mark(lamp.number, { result: 'failed', why: 'dark' }));
  const blocks = proofBlocks(content(many), '');
  const first = blocks.slice(
    0,
    blocks.findIndex(({ kind }) => kind === 'contents'),
  );
  const words = first.flatMap((block) => ('text' in block ? [block.text] : []));
  expect(words.filter((line) => /: failed, dark\.$/.test(line))).toHaveLength(12);
  expect(words).toContain('and 2 more, on the pages that follow.');
  expect(words).toContain('No lamp was asked how it is set.');
  expect(first.some(({ kind }) => kind === 'page')).toBe(false);
});

test('HTML has contents that lead to its parts, a phone’s width, and a name for each cell', () => {
  const html = proofHtml(content([mark(101)]), '');
  expect(html).toContain('<meta name="viewport" content="width=device-width,initial-scale=1">');
  const links = [...html.matchAll(/<a href="#([^"]+)">([^<]+)<\/a>/g)];
  expect(links.length).toBeGreaterThan(5);
  for (const [, id, words] of links) expect(html).toContain(`id="${id}">${words}<`);
  expect(html).toContain('<td data-label="State">proved</td>');
});

describe('columns as wide as they need', () => {
  const words = fc
    .array(fc.stringMatching(/^[A-Za-z0-9]{1,14}$/), { minLength: 1, maxLength: 6 })
    .map((all) => all.join(' '));
  const rows = fc
    .integer({ min: 1, max: 7 })
    .chain((columns) =>
      fc.array(fc.array(words, { minLength: columns, maxLength: columns }), { minLength: 1, maxLength: 8 }),
    );

  test('they fill the paper, and no word is broken where all longest words fit', () =>
    fc.assert(
      fc.property(rows, (all) => {
        const size = tableSize(all, 515, 10.5, 5, 8);
        const widths = columnWidths(all, 515, size, 8);
        expect(widths.reduce((sum, one) => sum + one + 8, 0)).toBeCloseTo(515, 3);
        for (const row of all)
          row.forEach((text, i) => {
            for (const word of text.split(' ')) expect(textWidth(word, size)).toBeLessThanOrEqual(widths[i]! + 1e-6);
          });
      }),
    ));

  test('text is wrapped between words, and what has no room ends in an ellipsis', () => {
    expect(wrap('Car wash on the upper deck', 60, 10, 9)).toEqual(['Car wash', 'on the', 'upper deck']);
    expect(wrap('Car wash on the upper deck', 60, 10, 2)).toEqual([
      'Car wash',
      expect.stringMatching(/^on the.*…$/) as string,
    ]);
    for (const line of wrap('Unbreakablelongword and more of it', 50, 10, 3))
      expect(textWidth(line, 10)).toBeLessThanOrEqual(50);
  });
});

test('HTML shows what people wrote as they wrote it, and runs none of it', () => {
  const html = proofHtml(content([mark(101, { note: '<script>x</script> & “so”' })]), '');
  expect(html).toContain('&lt;script&gt;x&lt;/script&gt; &amp; “so”');
  expect(html).not.toContain('<script>');
});

test('a later one says what differs, and nothing else', () => {
  const before = content([mark(101)]);
  expect(differencesOfProofs(before, content([mark(101)]))).toEqual([]);
  const moved = ferry.lamp
    .map((one) => (one.number === 301 ? { ...one, channel: 400 } : one))
    .filter(({ number }) => number !== 51);
  const lines = differencesOfProofs(
    before,
    content([mark(101, { result: 'failed', why: 'dark' })], PROOF_PARTS, { lamp: moved }),
  );
  const name = (number: number) => `${number} ${ferry.lamp.find((one) => one.number === number)!.name}`;
  expect(lines).toContain(`${name(101)}: proved then, failed now.`);
  expect(lines.find((one) => one.startsWith(name(301)))).toMatch(/then, \d+\/400 now/);
  expect(lines).toContain(`${name(51)} is not in the show any more.`);
  expect(lines).toHaveLength(3);
});

describe('labels', () => {
  const all = (what: (typeof LABEL_KINDS)[number], ids: readonly string[] = [], cases = false) => {
    const made = labelsOf({ what, ids, cases }, ferry, patch);
    if (!made.ok) throw new Error(made.why);
    return made.value;
  };

  test('nodes, cables, lamps: each leads to its page', () => {
    const [node] = all('nodes', ['machine-boiler']);
    expect(node).toMatchObject({ title: 'Boiler node', path: '/wire/machine-boiler' });
    expect(node!.lines).toContain('127.0.0.32');
    expect(all('nodes', ['machine-boiler'], true)).toHaveLength(2);
    const outs = ferry.machine.flatMap(({ ports }) => ports.filter(({ use }) => use === 'out'));
    expect(all('cables')).toHaveLength(outs.length);
    expect(all('lamps', [lampId(101)])).toMatchObject([
      { title: `101 ${ferry.lamp.find(({ number }) => number === 101)!.name}`, path: `/rig/${lampId(101)}` },
    ]);
    expect(labelsOf({ what: 'lamps', ids: ['nobody'], cases: false }, ferry, patch)).toMatchObject({ ok: false });
  });

  test.each(LABEL_SHEETS)('%s: the longest name stays within its label', (sheet) => {
    const name = 'The uppermost port-side searchlight beside the second funnel '.repeat(2).trim();
    const laid = layLabel({ title: name, lines: [name, '127.0.0.32', name], path: '/' }, sheet);
    const { width, height } = SHEETS[sheet];
    const mm = 25.4 / 72;
    const down = (laid.titleLines.length * laid.title + laid.lines.length * laid.small) * 1.25 * mm;
    expect(down).toBeLessThanOrEqual(height - 2 * LABEL_EDGE);
    for (const line of laid.titleLines)
      expect(textWidth(line, laid.title) * mm).toBeLessThanOrEqual(width - laid.side - 2.9 * LABEL_EDGE);
    const whole = laid.titleLines.join(' ');
    expect(whole === name || whole.endsWith('…')).toBe(true);
  });

  test.each(LABEL_SHEETS)('%s: none lies over another or beyond the paper, and used places stay free', (sheet) => {
    const { columns, rows, width, height } = SHEETS[sheet];
    const skip = 2;
    const at = placed(all('lamps'), sheet, skip);
    const first = at.filter(({ page }) => page === 0);
    expect(first).toHaveLength(columns * rows - skip);
    for (const { x, y } of at) {
      expect(x).toBeGreaterThan(0);
      expect(x + width).toBeLessThan(PAPER_SIZES[paperOf(sheet)][0]);
      expect(y + height).toBeLessThan(PAPER_SIZES[paperOf(sheet)][1]);
    }
    for (const a of first)
      for (const b of first)
        if (a !== b) expect(Math.abs(a.x - b.x) >= width || Math.abs(a.y - b.y) >= height - 1e-9).toBe(true);
  });
});
