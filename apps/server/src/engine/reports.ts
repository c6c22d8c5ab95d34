/** What the engine reports: all of itself twice a second, universes in parts, slots that are inspected at once. */
import { OWN_NAME } from '@taxiarch/core/signal/stream';
import { ANNOUNCERS_REPORTED } from './listening/discovered';
import type { EngineReport, EngineUniverse } from '../bridge/engineMessages';
import { formatCid } from '@taxiarch/core/protocol/sacn';
import type { EngineParts } from './parts';
import { Rates, Trouble } from './state';
import type { LiveUniverse } from './listening/universe';

export const REPORT_MS = 500;
/** With many universes a report on all of them at once would hold up the packets, so it is made in parts. */
export const REPORT_PARTS = 8;
const UNIVERSES_A_PART = 128;

export class Reports {
  readonly troubles = new Trouble();
  private readonly rates: Rates;
  private readonly listeningSince: number;
  /** Rows not yet told: a thousand universes that begin at once are one message, not a thousand. */
  private newRows: [number, number][] = [];
  /** What was last told of each inspected slot, so that it is told again only when it changed. */
  private readonly said = new Map<number, string>();
  private part = 0;
  private reportedTo = 0;

  constructor(private readonly engine: EngineParts) {
    this.listeningSince = Math.round(engine.epoch + engine.clock());
    this.rates = new Rates({ at: engine.clock(), heard: 0, sent: 0 });
  }

  noteRow({ key, row }: LiveUniverse): void {
    this.newRows.push([key, row]);
  }

  tellRows(): void {
    if (this.newRows.length === 0) return;
    this.engine.tell({ type: 'rows', rows: this.newRows });
    this.newRows = [];
  }

  /** What each stream says of the slots that somebody inspects. */
  tellInspected(inspected: readonly (readonly [number, number])[], now: number): void {
    for (const [key, slot] of inspected) {
      const contenders = this.engine.ingest.universe(key)?.contendersAt(slot, now, this.engine.timeoutOf(key)) ?? [];
      const said = JSON.stringify(contenders.map(({ mark, value, priority }) => [mark, value, priority]));
      if (said === this.said.get(key * 512 + slot)) continue;
      this.said.set(key * 512 + slot, said);
      this.engine.tell({ type: 'contenders', key, slot, contenders });
    }
  }

  /** Inspected slots are told again though nothing changed: somebody new may look. */
  forgetInspected(): void {
    this.said.clear();
  }

  /** Called in each part of a report's interval. */
  due(): void {
    this.part = (this.part + 1) % REPORT_PARTS;
    const many = this.engine.ingest.universes.length > UNIVERSES_A_PART;
    if (many || this.part === 0) this.engine.tell({ type: 'universes', universes: this.nextUniverses() });
    if (this.part === 0) this.tellNow();
  }

  tellNow(): void {
    this.engine.tell({ type: 'report', report: this.report() });
  }

  /** The universes whose turn it is to be reported. */
  private nextUniverses(): EngineUniverse[] {
    const { ingest, nodes, epoch } = this.engine;
    const now = this.engine.clock();
    const all = ingest.universes;
    const from = this.reportedTo >= all.length ? 0 : this.reportedTo;
    this.reportedTo = from + UNIVERSES_A_PART;
    return all.slice(from, this.reportedTo).map((universe) => {
      for (const stream of universe.streams)
        if (stream.origin.protocol === 'artnet')
          stream.name = stream.origin.sent === 'others' ? nodes.nameOf(stream.address) : OWN_NAME;
      return { key: universe.key, streams: universe.report(now, this.engine.timeoutOf(universe.key), epoch) };
    });
  }

  private report(): EngineReport {
    const {
      ingest,
      sockets,
      nodes,
      discovered,
      membership,
      sweep,
      alsoHeard,
      output,
      polling,
      router,
      using,
      settings,
      epoch,
    } = this.engine;
    const now = this.engine.clock();
    const rates = this.rates.of(now, ingest.packets, sockets.sent);
    return {
      at: Math.round(epoch + now),
      listeningSince: this.listeningSince,
      interface: using.sacn,
      artnetInterface: using.artnet,
      listed: polling.listed,
      trouble: this.troubles.says(using, settings, now),
      nodes: nodes.report(now, epoch),
      nodesMore: nodes.more(now),
      discovered: discovered.report(epoch),
      discoveredMore: Math.max(0, discovered.count - ANNOUNCERS_REPORTED),
      membership: {
        wanted: membership.wanted,
        joined: sockets.membership.joined,
        ipv6: sockets.joinedBySixth,
        most: settings.mostGroups,
        full: sockets.membership.full,
      },
      sweep: sweep.report(),
      syncs: ingest.syncs.report(now, epoch),
      alsoHeard: alsoHeard.report(),
      sending: using.sacn
        ? [...output.sending(formatCid(this.engine.ownCid), using.sacn.address), ...router.sending(using.sacn.address)]
        : [],
      output: { ...output.report(rates.sent), pictures: this.engine.pictures.report() },
      ...router.report(now),
      packetsPerSecond: rates.heard,
      packets: ingest.packets,
      lost: sockets.lost + this.engine.drops,
      rejected: ingest.rejected,
    };
  }
}
