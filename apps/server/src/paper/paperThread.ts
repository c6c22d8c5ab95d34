/** Entry of a thread that makes PDF, so that the server goes on meanwhile. */
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import pdfmake from 'pdfmake';
import qrcode from 'qrcode';
import {
  type Block,
  columnWidths,
  cut,
  LABEL_EDGE,
  type LabelSheet,
  layLabel,
  type Paper,
  PAPER_SIZES,
  paperOf,
  type PlacedLabel,
  SHEETS,
  tableSize,
  textWidth,
} from '@taxiarch/core/proving/proof';
import type { Content, CustomTableLayout, TDocumentDefinitions } from 'pdfmake/interfaces';
import { DEJAVU, FIRA, fontsIn, Letters, MAIN_FONT, NO_LETTER } from './letters';

export type PaperOrder =
  | {
      readonly kind: 'proof';
      readonly blocks: readonly Block[];
      readonly title: string;
      readonly show: string;
      readonly foot: string;
      readonly at: string;
      readonly paper: Paper;
    }
  | {
      readonly kind: 'labels';
      readonly labels: readonly PlacedLabel[];
      readonly sheet: LabelSheet;
      readonly base: string;
    };

const { resolve } = createRequire(import.meta.url);
const [fira, dejavu] = [FIRA, DEJAVU].map((name) => dirname(resolve(`${name}/package.json`)));
const fonts = fontsIn(fira!, dejavu!);
pdfmake.setFonts({ ...fonts });
pdfmake.setLocalAccessPolicy((path: string) => [fira!, dejavu!].some((folder) => path.startsWith(folder)));
pdfmake.setUrlAccessPolicy(() => false);
const letters = new Letters(fonts);

const SIZES = { title: 24, text: 12, strong: 12, small: 9 } as const;
const HEADINGS = { 1: 18, 2: 14 } as const;
const TABLE_SIZE = 10.5;
const TABLE_LEAST = 7;
const LIST_SIZE = 9;
/** Points of a millimetre */
const MM = 72 / 25.4;
const MARGIN = 40;
/** Right of the text of a cell, points */
const CELL_PADDING = 8;
/** A line under the heads, hairlines under the rows, nothing between columns */
const HAIRLINES: CustomTableLayout = {
  vLineWidth: () => 0,
  hLineWidth: (i) => (i === 0 ? 0 : i === 1 ? 1 : 0.5),
  hLineColor: (i) => (i === 1 ? '#111' : '#999'),
  paddingLeft: () => 0,
  paddingRight: () => CELL_PADDING,
};

const points = (paper: Paper): { width: number; height: number } => {
  const [width, height] = PAPER_SIZES[paper];
  return { width: width * MM, height: height * MM };
};

/** As many columns as the longest item leaves room for; items are never broken. */
function listContent(items: readonly string[], available: number): Content {
  const longest = Math.max(1, ...items.map((item) => textWidth(item, LIST_SIZE)));
  const columns = Math.max(1, Math.min(4, Math.floor((available + 10) / (longest + 10))));
  const rows = Math.ceil(items.length / columns);
  return {
    columns: Array.from({ length: columns }, (_, column) => ({
      width: '*',
      stack: items
        .slice(column * rows, (column + 1) * rows)
        .map((item) => ({ text: letters.set(item), noWrap: columns > 1 })),
    })),
    columnGap: 10,
    fontSize: LIST_SIZE,
    margin: [0, 2, 0, 8],
  };
}

function tableContent({ head, rows }: Extract<Block, { kind: 'table' }>, available: number): Content {
  const all = [head, ...rows];
  const size = tableSize(all, available, TABLE_SIZE, TABLE_LEAST, CELL_PADDING);
  return {
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: columnWidths(all, available, size, CELL_PADDING),
      body: [
        head.map((one) => ({ text: letters.set(one), bold: true })),
        ...rows.map((row) => row.map((one) => ({ text: letters.set(one) }))),
      ],
    },
    layout: HAIRLINES,
    fontSize: size,
    margin: [0, 4, 0, 8],
  };
}

function contentOf(blocks: readonly Block[], available: number): Content[] {
  let breaks = false;
  let headings = 0;
  const some = blocks.some(({ kind }) => kind === 'heading');
  return blocks.flatMap((block): Content[] => {
    if (block.kind === 'page') {
      breaks = true;
      return [];
    }
    const before = breaks ? ({ pageBreak: 'before' } as const) : {};
    breaks = false;
    switch (block.kind) {
      case 'contents':
        return some ? [{ toc: { title: { text: 'Contents', bold: true, fontSize: 14, margin: [0, 14, 0, 4] } } }] : [];
      case 'list':
        return [listContent(block.items, available)];
      case 'table':
        return [tableContent(block, available)];
      case 'heading': {
        const id = `heading ${(headings += 1)}`;
        return [
          {
            ...{ text: letters.set(block.text), id, headlineLevel: block.level, bold: true, ...before },
            ...{ fontSize: HEADINGS[block.level], margin: [0, block.level === 1 ? 12 : 8, 0, 6] },
            ...{ tocItem: true, tocMargin: [block.level === 1 ? 0 : 14, 1, 0, 1] },
            // The reader's outline: places within "Lamps by place".
            ...{ outline: true, outlineText: block.text, outlineExpanded: false },
          } as Content,
        ];
      }
      default:
        return [
          {
            ...{ text: letters.set(block.text), fontSize: SIZES[block.kind], ...before },
            ...{ bold: block.kind === 'strong' || block.kind === 'title' },
            margin: [0, block.kind === 'strong' ? 6 : 0, 0, block.kind === 'text' ? 3 : 6],
          },
        ];
    }
  });
}

/** Said at the foot of a paper in which letters are missing. */
const MISSING = `${NO_LETTER} stands for a letter that the fonts of this paper lack; the files as HTML, CSV and JSON have it.`;

type ProofOrder = Extract<PaperOrder, { kind: 'proof' }>;

/** `partOn`: the part that a page belongs to, once that is known. */
function proof(
  { blocks, title, show, foot, at, paper }: ProofOrder,
  partOn: (page: number) => string,
  begins: (id: string, page: number) => void,
): TDocumentDefinitions {
  const { width, height } = points(paper);
  return {
    info: { title, creationDate: new Date(at) },
    pageSize: { width, height },
    pageMargins: [MARGIN, MARGIN + 16, MARGIN, 50],
    defaultStyle: { font: MAIN_FONT },
    content: contentOf(blocks, width - 2 * MARGIN),
    pageBreakBefore: ({ id, pageNumbers }) => {
      if (id?.startsWith('heading ')) begins(id, pageNumbers[0]!);
      return false;
    },
    header: (page) =>
      page === 1
        ? ''
        : {
            columns: [
              { text: letters.set(cut(show, (width - 2 * MARGIN) / 2, 9)), fontSize: 9, bold: true },
              { text: letters.set(cut(partOn(page), (width - 2 * MARGIN) / 2, 9)), fontSize: 9, alignment: 'right' },
            ],
            margin: [MARGIN, 24, MARGIN, 0],
          },
    footer: (page, pages) => ({
      columns: [
        { text: letters.set(letters.missing > 0 ? `${foot} ${MISSING}` : foot), fontSize: 8 },
        { text: `${page} of ${pages}`, alignment: 'right', width: 60, fontSize: 9 },
      ],
      margin: [MARGIN, 12, MARGIN, 0],
    }),
  };
}

/** Laid out twice: on which page a part begins is known only after the first time. */
async function proofPdf(order: ProofOrder): Promise<Buffer> {
  const names = new Map<string, string>();
  let level1 = '';
  for (const block of order.blocks) {
    if (block.kind !== 'heading') continue;
    if (block.level === 1) level1 = block.text;
    names.set(`heading ${names.size + 1}`, block.level === 1 ? block.text : `${level1}: ${block.text}`);
  }
  const parts = new Map<number, string>();
  const note = (id: string, page: number) => {
    if (!parts.has(page)) parts.set(page, names.get(id)!);
  };
  const ends = new Map<number, string>();
  await pdfmake
    .createPdf(
      proof(
        order,
        () => '',
        (id, page) => {
          note(id, page);
          ends.set(page, names.get(id)!);
        },
      ),
    )
    .getBuffer();
  const partOn = (page: number): string => {
    const here = parts.get(page);
    if (here !== undefined) return here;
    for (let before = page - 1; before > 0; before -= 1) {
      const last = ends.get(before);
      if (last !== undefined) return last;
    }
    return '';
  };
  return pdfmake.createPdf(proof(order, partOn, () => undefined)).getBuffer();
}

async function labelSheets({
  labels: all,
  sheet,
  base,
}: Extract<PaperOrder, { kind: 'labels' }>): Promise<TDocumentDefinitions> {
  const { width } = SHEETS[sheet];
  const made = await Promise.all(
    all.map(async ({ label, x, y, page }): Promise<{ page: number; content: Content[] }> => {
      const svg = await qrcode.toString(`${base}${label.path}`, { type: 'svg', margin: 0 });
      const { side, title, small, titleLines, lines } = layLabel(label, sheet);
      return {
        page,
        content: [
          { svg, width: side * MM, absolutePosition: { x: (x + LABEL_EDGE) * MM, y: (y + LABEL_EDGE) * MM } },
          {
            columns: [
              {
                width: (width - side - 2 * LABEL_EDGE) * MM,
                stack: [
                  ...titleLines.map((line) => ({ text: letters.set(line), bold: true, fontSize: title, noWrap: true })),
                  ...lines.map((line) => ({ text: letters.set(line), fontSize: small, noWrap: true })),
                ],
              },
            ],
            absolutePosition: { x: (x + side + 2 * LABEL_EDGE) * MM, y: (y + LABEL_EDGE) * MM },
          },
        ],
      };
    }),
  );
  const pages = made.reduce((most, one) => Math.max(most, one.page), 0);
  return {
    info: { title: 'Labels' },
    pageSize: points(paperOf(sheet)),
    pageMargins: [0, 0, 0, 0],
    defaultStyle: { font: MAIN_FONT },
    content: Array.from({ length: pages + 1 }, (_, page): Content => ({
      stack: [{ text: ' ', fontSize: 1 }, ...made.filter((one) => one.page === page).flatMap(({ content }) => content)],
      ...(page > 0 && { pageBreak: 'before' as const }),
    })),
  };
}

const order = workerData as PaperOrder;
const pdf =
  order.kind === 'proof' ? await proofPdf(order) : await pdfmake.createPdf(await labelSheets(order)).getBuffer();
parentPort!.postMessage(new Uint8Array(pdf));
