/** A record of proof as paper: blocks one after another, from which PDF and HTML are made alike. */
import type { ProofContent } from './said';

export type Block =
  | { readonly kind: 'title' | 'heading' | 'text' | 'strong' | 'small'; readonly text: string }
  | { readonly kind: 'page' }
  | {
      readonly kind: 'table';
      readonly head: readonly string[];
      /** Share of the width that each column takes; 0 for as wide as it needs */
      readonly wide: readonly number[];
      readonly rows: readonly (readonly string[])[];
    };

const timeText = (iso: string): string => iso.slice(0, 16).replace('T', ' ');
const text = (words: string): Block => ({ kind: 'text', text: words });
const heading = (words: string): Block => ({ kind: 'heading', text: words });
const table = (head: readonly string[], wide: readonly number[], rows: readonly (readonly string[])[]): Block => ({
  kind: 'table',
  ...{ head, wide, rows },
});

function* placePages({ places }: ProofContent): Generator<Block> {
  for (const { place, lamps } of places) {
    // What was looked at before a change is not known any more.
    const count = (state: string) => lamps.filter((one) => one.state === state && one.changed.length === 0).length;
    const rest = lamps.length - count('proved') - count('failed');
    yield { kind: 'page' };
    yield heading(place);
    yield text(`${count('proved')} of ${lamps.length} proved, ${count('failed')} failed, ${rest} not known.`);
    yield table(
      ['No.', 'Lamp', 'Address', 'Mode', 'State', 'Known', 'By, when'],
      [0, 3, 0, 2, 0, 0, 2],
      lamps.map(({ number, name, address, mode, state, known, by, at, why, note, changed }) => [
        String(number),
        [name, note, ...(changed.length > 0 ? [`changed since: ${changed.join('; ')}`] : [])]
          .filter(Boolean)
          .join('. '),
        address,
        mode,
        `${why === '' ? state : `${state}: ${why}`}${changed.length > 0 ? ', before a change' : ''}`,
        known,
        by === '' ? '' : `${by}, ${timeText(at)}`,
      ]),
    );
  }
}

/** `sha256`: of the content, once it is signed */
export function proofBlocks(content: ProofContent, sha256: string): Block[] {
  const { show, seq, at, sentence, failed, notKnown, nodes, addresses, ports, universes, pixels, switches } = content;
  const { whatIf, differs, signed } = content;
  const part = (words: string, blocks: readonly Block[], any: readonly unknown[]): Block[] =>
    any.length === 0 ? [] : [{ kind: 'page' }, heading(words), ...blocks];
  return [
    { kind: 'title', text: `Record of proof: ${show}` },
    { kind: 'strong', text: sentence },
    text(`As of ${timeText(at)} UTC, edit ${seq}.`),
    ...(signed
      ? [
          heading('Signed'),
          { kind: 'strong', text: `${signed.name}${signed.role === '' ? '' : `, ${signed.role}`}` } as const,
          ...(signed.words === '' ? [] : [text(signed.words)]),
          { kind: 'small', text: `SHA-256 ${sha256}` } as const,
        ]
      : [{ kind: 'strong', text: 'Not signed.' } as const]),
    ...(differs
      ? [
          heading('Since the one before'),
          text(`Signed ${timeText(differs.at)} UTC, SHA-256 ${differs.sha256}.`),
          ...(differs.lines.length === 0 ? [text('Nothing stands otherwise.')] : differs.lines.map(text)),
        ]
      : []),
    ...(notKnown.length > 0 ? [heading('Not known'), ...notKnown.map(text)] : []),
    ...placePages(content),
    ...part(
      'What failed, and what was done',
      [
        table(
          ['Lamp', 'Place', 'Why', 'By, when', 'Then'],
          [2, 1, 2, 2, 2],
          failed.map(({ lamp, place, why, note, by, at: when, then }) => [
            lamp,
            place,
            [why, note].filter(Boolean).join('. '),
            `${by}, ${timeText(when)}`,
            then,
          ]),
        ),
      ],
      failed,
    ),
    ...part(
      'Nodes as they say that they are set',
      nodes.flatMap(({ name, address, state, firmware, differs: drift, ports: its }): Block[] => [
        { kind: 'strong', text: `${name}, ${address}: ${state}${firmware === '' ? '' : `, firmware ${firmware}`}` },
        ...drift.map(text),
        ...(its.length === 0
          ? []
          : [
              table(
                ['Port', 'Planned', 'Says'],
                [0, 1, 1],
                its.map(({ port, planned, says }) => [String(port), planned, says]),
              ),
            ]),
      ]),
      nodes,
    ),
    ...part(
      'Addresses',
      [
        table(
          ['Machine', 'Interface', 'Address'],
          [2, 1, 1],
          addresses.map((one) => [one.machine, one.interface, one.address]),
        ),
      ],
      addresses,
    ),
    ...part(
      'Ports',
      [
        table(
          ['Node', 'Port', 'Carries', 'Merge', 'Without signal', 'At the start'],
          [2, 0, 1, 0, 1, 0],
          ports.map((one) => [one.node, String(one.port), one.carries, one.merge, one.loss, one.start]),
        ),
      ],
      ports,
    ),
    ...part(
      'Universes',
      [
        table(
          ['No.', 'Name', 'On the wire', 'Sent by', 'Leaves by'],
          [0, 1, 1, 2, 2],
          universes.map((one) => [String(one.number), one.name, one.wire, one.sentBy.join('; '), one.ports.join('; ')]),
        ),
      ],
      universes,
    ),
    ...part(
      'Pixels',
      [
        table(
          ['Run', 'Pixels', 'Begins at', 'Driven by'],
          [2, 0, 2, 1],
          pixels.map((one) => [one.run, String(one.pixels), one.at, one.by]),
        ),
      ],
      pixels,
    ),
    ...part(
      'Switches',
      [
        text('From the left: switch 1 is worth 1, each next twice as much; 1 is on.'),
        table(
          ['Lamp', 'Channel', 'Switches'],
          [2, 0, 1],
          switches.map((one) => [one.lamp, String(one.channel), one.row]),
        ),
      ],
      switches,
    ),
    ...part(
      'What if',
      [
        text('Each single failure that costs light, begun from the plan and looked at for 30 s.'),
        table(
          ['What fails', 'Lamps'],
          [1, 1],
          whatIf.map((one) => [one.what, one.cost]),
        ),
      ],
      whatIf,
    ),
  ];
}

const escaped = (words: string): string =>
  words.replace(/[&<>"]/g, (one) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[one]!);

const TAGS = { title: 'h1', heading: 'h2', text: 'p', strong: 'p class="strong"', small: 'p class="small"' } as const;

/** One file, to be read and printed by any browser. */
export function proofHtml(content: ProofContent, sha256: string): string {
  const body = proofBlocks(content, sha256).map((block) => {
    if (block.kind === 'page') return '<div class="page"></div>';
    if (block.kind !== 'table')
      return `<${TAGS[block.kind]}>${escaped(block.text)}</${TAGS[block.kind].split(' ')[0]}>`;
    const cells = (tag: 'th' | 'td', row: readonly string[]) =>
      `<tr>${row.map((one) => `<${tag}>${escaped(one)}</${tag}>`).join('')}</tr>`;
    return `<table><thead>${cells('th', block.head)}</thead><tbody>${block.rows.map((row) => cells('td', row)).join('')}</tbody></table>`;
  });
  const style =
    'body{font:14pt/1.35 "Fira Sans",sans-serif;margin:2em;color:#111}h1{font-size:26pt}h2{font-size:20pt}.strong{font-weight:600}.small{font-size:10pt;word-break:break-all}table{border-collapse:collapse;width:100%;font-size:12pt}th,td{border-bottom:1px solid #888;padding:.25em .5em .25em 0;text-align:left;vertical-align:top}thead{display:table-header-group}tr{break-inside:avoid}.page{break-before:page}';
  return `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>${escaped(content.show)}: record of proof</title><style>${style}</style></head><body>\n${body.join('\n')}\n</body></html>\n`;
}
