/** A record of proof as paper: blocks one after another, from which PDF and HTML are made alike. */
import type { ProofContent, ProvenLamp } from './said';

export type Block =
  | { readonly kind: 'title' | 'text' | 'strong' | 'small'; readonly text: string }
  /** Stands in the contents; level 2 within the level 1 before it */
  | { readonly kind: 'heading'; readonly text: string; readonly level: 1 | 2 }
  | { readonly kind: 'page' }
  | { readonly kind: 'contents' }
  /** Short items, each on one line, in as many columns as fit */
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | { readonly kind: 'table'; readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] };

const timeText = (iso: string): string => iso.slice(0, 16).replace('T', ' ');
const text = (words: string): Block => ({ kind: 'text', text: words });
const heading = (words: string, level: 1 | 2 = 1): Block => ({ kind: 'heading', text: words, level });
const table = (head: readonly string[], rows: readonly (readonly string[])[]): Block => ({ kind: 'table', head, rows });
const page: Block = { kind: 'page' };

/** Nobody looked at it, or somebody passed it over. */
const isUnchecked = ({ state }: ProvenLamp): boolean => state === 'untried' || state === 'skipped';

const lampLine = ({ number, name, address }: ProvenLamp): string => `${number} ${name}, ${address}`;

function lampRow({ number, name, address, mode, state, known, by, at, why, note, changed }: ProvenLamp): string[] {
  const since = changed.length > 0 ? [`Changed since: ${changed.join('; ')}`] : [];
  return [
    String(number),
    [name, note, ...since].filter(Boolean).join('. '),
    address,
    mode,
    `${why === '' ? state : `${state}: ${why}`}${changed.length > 0 ? ', before a change' : ''}`,
    known,
    by === '' ? '' : `${by}, ${timeText(at)}`,
  ];
}

function* placePages({ places }: ProofContent): Generator<Block> {
  if (places.length === 0) return;
  yield page;
  yield heading('Lamps by place');
  for (const { place, lamps } of places) {
    // What was looked at before a change is not known any more.
    const count = (state: string) => lamps.filter((one) => one.state === state && one.changed.length === 0).length;
    const rest = lamps.length - count('proved') - count('failed');
    yield heading(place, 2);
    yield text(`${count('proved')} of ${lamps.length} proved, ${count('failed')} failed, ${rest} not known.`);
    const looked = lamps.filter((one) => !isUnchecked(one));
    if (looked.length > 0)
      yield table(['No.', 'Lamp', 'Address', 'Mode', 'State', 'Known', 'By, when'], looked.map(lampRow));
    const unchecked = lamps.filter(isUnchecked);
    if (unchecked.length > 0) {
      yield { kind: 'strong', text: `Not checked: ${unchecked.length}` };
      yield { kind: 'list', items: unchecked.map(lampLine) };
    }
  }
}

/** Failures and open points listed on the first page */
const MOST_FIRST = 12;
const some = (lines: readonly string[]): Block[] => [
  ...lines.slice(0, MOST_FIRST).map(text),
  ...(lines.length > MOST_FIRST ? [text(`and ${lines.length - MOST_FIRST} more, on the pages that follow.`)] : []),
];

/** What still fails, with its place: it stands on the first page. */
function openFailures({ places, failed }: ProofContent): string[] {
  const fromLamps = places.flatMap(({ place, lamps }) =>
    lamps
      .filter(({ state }) => state === 'failed' || state === 'disputed')
      .map((one) => `${one.number} ${one.name}, ${place}: ${one.state}${one.why === '' ? '' : `, ${one.why}`}.`),
  );
  if (places.length > 0) return fromLamps;
  return failed
    .filter(({ then }) => then === 'still so')
    .map(({ lamp, place, why }) => `${lamp}, ${place}: failed${why === '' ? '' : `, ${why}`}.`);
}

/** `sha256`: of the content, once it is signed */
export function proofBlocks(content: ProofContent, sha256: string): Block[] {
  const { show, seq, at, sentence, failed, notKnown, nodes, addresses, ports, universes, pixels, switches } = content;
  const { whatIf, differs, signed } = content;
  const part = (words: string, blocks: readonly Block[], any: readonly unknown[]): Block[] =>
    any.length === 0 ? [] : [heading(words), ...blocks];
  const stillFail = openFailures(content);
  return [
    { kind: 'title', text: `Record of proof: ${show}` },
    { kind: 'strong', text: sentence },
    text(`As of ${timeText(at)} UTC, edit ${seq}.`),
    ...(stillFail.length > 0 ? [{ kind: 'strong', text: 'Failed' } as const, ...some(stillFail)] : []),
    ...(notKnown.length > 0 ? [{ kind: 'strong', text: 'Not known' } as const, ...some(notKnown)] : []),
    ...(signed
      ? [
          { kind: 'strong', text: `Signed by ${signed.name}${signed.role === '' ? '' : `, ${signed.role}`}` } as const,
          ...(signed.words === '' ? [] : [text(signed.words)]),
          { kind: 'small', text: `SHA-256 ${sha256}` } as const,
        ]
      : [{ kind: 'strong', text: 'Not signed.' } as const]),
    { kind: 'contents' },
    ...(differs
      ? [
          page,
          heading('Changes since the record before'),
          text(`That one was signed ${timeText(differs.at)} UTC, SHA-256 ${differs.sha256}.`),
          ...(differs.lines.length === 0 ? [text('No changes.')] : differs.lines.map(text)),
        ]
      : []),
    ...placePages(content),
    page,
    ...part(
      'What failed, and what was done',
      [
        table(
          ['Lamp', 'Place', 'Why', 'By, when', 'Then'],
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
          whatIf.map((one) => [one.what, one.cost]),
        ),
      ],
      whatIf,
    ),
  ];
}

const escaped = (words: string): string =>
  words.replace(/[&<>"]/g, (one) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[one]!);

const STYLE =
  `body{font:12pt/1.4 "Fira Sans",system-ui,sans-serif;margin:0 auto;padding:1.2em;max-width:60em;color:#111}
h1{font-size:20pt;margin:0 0 .4em}h2{font-size:16pt;margin:1.4em 0 .4em}h3{font-size:13pt;margin:1.2em 0 .3em}
p{margin:.3em 0}.strong{font-weight:600;margin-top:.8em}.small{font-size:9pt;word-break:break-all}
nav ol{margin:.3em 0;padding-left:1.4em}ul{columns:18em;padding-left:0;margin:.3em 0;list-style:none}
table{border-collapse:collapse;width:100%;font-size:11pt}th,td{border-bottom:1px solid #888;padding:.25em .6em .25em 0;text-align:left;vertical-align:top}
thead{display:table-header-group}tr,li{break-inside:avoid}.page{break-before:page}
@media screen and (max-width:640px){thead{position:absolute;clip-path:inset(50%);width:1px;height:1px;overflow:hidden}
tr{display:block;border-bottom:1px solid #888;padding:.4em 0}td{display:block;border:0;padding:.05em 0}
td:empty{display:none}td::before{content:attr(data-label) ": ";color:#555}td:first-child{font-weight:600}}`.replace(
    /\n/g,
    '',
  );

/** One file, to be read by any browser, on a phone too, and printed. */
export function proofHtml(content: ProofContent, sha256: string): string {
  const blocks = proofBlocks(content, sha256);
  const headings = blocks.flatMap((block) => (block.kind === 'heading' ? [block] : []));
  let at = 0;
  const htmlOf = (block: Block): string => {
    switch (block.kind) {
      case 'page':
        return '<div class="page"></div>';
      case 'contents':
        return `<nav aria-label="Contents"><ol>${headings
          .map(({ text: words, level }, i) =>
            level === 1 ? `<li><a href="#part-${i}">${escaped(words)}</a></li>` : '',
          )
          .join('')}</ol></nav>`;
      case 'list':
        return `<ul>${block.items.map((item) => `<li>${escaped(item)}</li>`).join('')}</ul>`;
      case 'table': {
        const head = block.head.map((one) => `<th>${escaped(one)}</th>`).join('');
        const rows = block.rows.map(
          (row) =>
            `<tr>${row.map((one, i) => `<td data-label="${escaped(block.head[i] ?? '')}">${escaped(one)}</td>`).join('')}</tr>`,
        );
        return `<table><thead><tr>${head}</tr></thead><tbody>${rows.join('')}</tbody></table>`;
      }
      case 'heading': {
        const tag = block.level === 1 ? 'h2' : 'h3';
        return `<${tag} id="part-${at++}">${escaped(block.text)}</${tag}>`;
      }
      case 'title':
        return `<h1>${escaped(block.text)}</h1>`;
      default:
        return `<p${block.kind === 'text' ? '' : ` class="${block.kind}"`}>${escaped(block.text)}</p>`;
    }
  };
  return `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escaped(content.show)}: record of proof</title><style>${STYLE}</style></head><body>\n${blocks.map(htmlOf).join('\n')}\n</body></html>\n`;
}
