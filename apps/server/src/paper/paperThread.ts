/** Entry of a thread that makes PDF, so that the server goes on meanwhile. */
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import pdfmake from 'pdfmake';
import qrcode from 'qrcode';
import { SHEETS, type Block, type LabelSheet, type PlacedLabel } from '@taxiarch/core/proof';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { DEJAVU, FIRA, fontsIn, Letters, MAIN_FONT, NO_LETTER } from './letters';

export type PaperOrder =
  | {
      readonly kind: 'proof';
      readonly blocks: readonly Block[];
      readonly title: string;
      readonly foot: string;
      readonly at: string;
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

const SIZES = { title: 26, heading: 20, text: 13, strong: 13, small: 9 } as const;
/** Points of a millimetre */
const MM = 72 / 25.4;

/** Of the width, so much is for columns that share it; the others take what they need. */
const SHARED = 70;
function widthsOf(wide: readonly number[]): string[] {
  const all = wide.reduce((sum, one) => sum + one, 0);
  const share = wide.includes(0) ? SHARED : 100;
  return wide.map((one) => (one === 0 ? 'auto' : `${Math.floor((one / all) * share)}%`));
}

function contentOf(blocks: readonly Block[]): Content[] {
  let breaks = false;
  return blocks.flatMap((block): Content[] => {
    if (block.kind === 'page') {
      breaks = true;
      return [];
    }
    const before = breaks ? ({ pageBreak: 'before' } as const) : {};
    breaks = false;
    if (block.kind !== 'table')
      return [
        {
          text: letters.set(block.text),
          fontSize: SIZES[block.kind],
          bold: block.kind === 'strong' || block.kind === 'heading' || block.kind === 'title',
          margin: [0, block.kind === 'heading' ? 12 : 0, 0, 6],
          ...before,
        },
      ];
    return [
      {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: widthsOf(block.wide),
          body: [
            block.head.map((one) => ({ text: letters.set(one), bold: true })),
            ...block.rows.map((row) => row.map((one) => ({ text: letters.set(one) }))),
          ],
        },
        layout: 'lightHorizontalLines',
        fontSize: 11,
        margin: [0, 4, 0, 8],
        ...before,
      },
    ];
  });
}

/** Said at the foot of a paper in which letters are missing. */
const MISSING = `${NO_LETTER} stands for a letter that the fonts of this paper lack; the files as HTML, CSV and JSON have it.`;

const proof = ({ blocks, title, foot, at }: Extract<PaperOrder, { kind: 'proof' }>): TDocumentDefinitions => ({
  info: { title, creationDate: new Date(at) },
  pageSize: 'A4',
  pageMargins: [40, 40, 40, 50],
  defaultStyle: { font: MAIN_FONT },
  content: contentOf(blocks),
  footer: (page, pages) => ({
    columns: [
      { text: letters.set(letters.missing > 0 ? `${foot} ${MISSING}` : foot), fontSize: 8 },
      { text: `${page} of ${pages}`, alignment: 'right', width: 60, fontSize: 9 },
    ],
    margin: [40, 12, 40, 0],
  }),
});

/** Square of the picture, and of the text beside it, mm */
const EDGE = 2.5;

async function labelSheets({
  labels: all,
  sheet,
  base,
}: Extract<PaperOrder, { kind: 'labels' }>): Promise<TDocumentDefinitions> {
  const { width, height } = SHEETS[sheet];
  const side = Math.min(height - 2 * EDGE, width * 0.4);
  const made = await Promise.all(
    all.map(async ({ label: { title, lines, path }, x, y, page }): Promise<{ page: number; content: Content[] }> => {
      const svg = await qrcode.toString(`${base}${path}`, { type: 'svg', margin: 0 });
      const beside = width - side - 3 * EDGE;
      const big = height > 30 ? 11 : 8;
      return {
        page,
        content: [
          { svg, width: side * MM, absolutePosition: { x: (x + EDGE) * MM, y: (y + EDGE) * MM } },
          {
            columns: [
              {
                width: beside * MM,
                stack: [
                  { text: letters.set(title), bold: true, fontSize: big },
                  ...lines.map((line) => ({ text: letters.set(line), fontSize: big - 2 })),
                ],
              },
            ],
            absolutePosition: { x: (x + side + 2 * EDGE) * MM, y: (y + EDGE) * MM },
          },
        ],
      };
    }),
  );
  const pages = made.reduce((most, one) => Math.max(most, one.page), 0);
  return {
    info: { title: 'Labels' },
    pageSize: 'A4',
    pageMargins: [0, 0, 0, 0],
    defaultStyle: { font: MAIN_FONT },
    content: Array.from({ length: pages + 1 }, (_, page): Content => ({
      stack: [{ text: ' ', fontSize: 1 }, ...made.filter((one) => one.page === page).flatMap(({ content }) => content)],
      ...(page > 0 && { pageBreak: 'before' as const }),
    })),
  };
}

const order = workerData as PaperOrder;
const made = order.kind === 'proof' ? proof(order) : await labelSheets(order);
const pdf = await pdfmake.createPdf(made).getBuffer();
parentPort!.postMessage(new Uint8Array(pdf));
