/** What happened lately: senders lost, taken over and back, boxes gone and back, hot and safe. */
import { formatUniverses } from '../../base/address';
import { integer, orNone, report, word, words, type ReportOf } from '../../base/field';
import type { NodeReport } from '../../network/node';
import { timeCodeOf, timeCodesOf, type AlsoHeardReport, type UniverseReport } from '../../signal/stream';

export const HAPPENINGS = ['lost', 'back', 'gone', 'answers', 'hot', 'safe'] as const;

export const happening = report('Happening', {
  at: integer('Unix time, ms.'),
  kind: word(HAPPENINGS),
  says: words('In one sentence.'),
  timeCode: orNone(words('Time code that was heard then.')),
});
export interface Happening extends ReportOf<typeof happening.fields> {}

/** What of a live report is looked at. */
export interface HappeningNow {
  readonly at: number;
  readonly universes: readonly UniverseReport[];
  readonly nodes: readonly NodeReport[];
  readonly output: { readonly hot: boolean; readonly by: string };
  readonly alsoHeard?: readonly AlsoHeardReport[];
}

const REMEMBERED_MS = 3_600_000;
const MOST = 500;

type Streams = UniverseReport['streams'];

/** Who has the say on a universe once somebody has gone: of those still there the one of highest priority. */
function inCharge(streams: Streams): string | undefined {
  const [first] = streams
    .filter(({ lost, preview, own }) => !lost && !preview && !own)
    .sort((a, b) => b.priority - a.priority);
  return first && (first.name || first.address);
}

export class Happenings {
  private streams: Map<string, boolean> | undefined;
  private nodes = new Map<string, boolean>();
  private hot = false;
  private all: Happening[] = [];

  /** Newest first, of the last hour. */
  list(at: number): readonly Happening[] {
    return this.all.filter((one) => at - one.at <= REMEMBERED_MS);
  }

  /** Looks at a report; what differs from the one before happened in between. */
  look(now: HappeningNow): void {
    const first = this.streams === undefined;
    const found = [...this.lookAtStreams(now), ...this.lookAtNodes(now), ...this.lookAtOutput(now)];
    // At the first look nothing happened: all that is there was there before.
    if (first || found.length === 0) return;
    const timeCode = timeCodeOf(timeCodesOf(now.alsoHeard ?? [], now.at));
    const news = found.map(({ kind, says }) => ({ at: now.at, kind, says, ...(timeCode !== '' && { timeCode }) }));
    this.all = [...news, ...this.all].filter((one) => now.at - one.at <= REMEMBERED_MS).slice(0, MOST);
  }

  private *lookAtStreams({ universes }: HappeningNow): Generator<Omit<Happening, 'at'>> {
    const before = this.streams ?? new Map<string, boolean>();
    const next = new Map<string, boolean>();
    const lost = new Map<string, number[]>();
    const back = new Map<string, number[]>();
    const heirs = new Map<string, Map<string, number[]>>();
    const put = (map: Map<string, number[]>, name: string, universe: number) =>
      map.set(name, [...(map.get(name) ?? []), universe]);
    for (const { key, show, streams } of universes) {
      if (show === null) continue;
      for (const { name, address, cid, own, preview, lost: gone } of streams) {
        if (own || preview) continue;
        const id = `${key} ${cid || address}`;
        const who = name || address;
        next.set(id, gone);
        const was = before.get(id);
        if (gone && was === false) {
          put(lost, who, show);
          const heir = inCharge(streams);
          if (heir === undefined) continue;
          const its = heirs.get(who) ?? new Map<string, number[]>();
          heirs.set(who, its);
          put(its, heir, show);
        } else if (!gone && was !== false) put(back, who, show);
      }
    }
    this.streams = next;
    for (const [who, numbers] of lost) {
      const taken = [...(heirs.get(who) ?? [])].map(([heir, its]) => `${heir} has ${formatUniverses(its)} now`);
      const rest = taken.length > 0 ? `; ${taken.join(', ')}` : '; nobody has taken over';
      yield { kind: 'lost', says: `${who} was lost on ${formatUniverses(numbers)}${rest}.` };
    }
    for (const [who, numbers] of back) yield { kind: 'back', says: `${who} sends ${formatUniverses(numbers)}.` };
  }

  private *lookAtNodes({ nodes }: HappeningNow): Generator<Omit<Happening, 'at'>> {
    const next = new Map<string, boolean>();
    for (const { address, mac, shortName, gone } of nodes) {
      const id = mac || address;
      const was = this.nodes.get(id);
      next.set(id, gone);
      const who = shortName || address;
      if (gone && was === false) yield { kind: 'gone', says: `${who} does not answer any more.` };
      else if (!gone && was !== false) yield { kind: 'answers', says: `${who} answers at ${address}.` };
    }
    this.nodes = next;
  }

  private *lookAtOutput({ output: { hot, by } }: HappeningNow): Generator<Omit<Happening, 'at'>> {
    if (hot === this.hot) return;
    this.hot = hot;
    yield hot
      ? { kind: 'hot', says: `Taxiarch was made hot${by ? ` by ${by}` : ''}.` }
      : { kind: 'safe', says: 'Taxiarch is safe again.' };
  }
}
