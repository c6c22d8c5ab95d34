/** What other programs hand over live, and what is handed to them; all of it off until a person switches it on. */
import type { ExchangeReply, Settings } from '@taxiarch/core/whole/contract';
import type { CitpFixture } from '@taxiarch/core/protocol/citp';
import { citpDiffers, citpFixtures, citpTable, untoldByCitp } from '@taxiarch/core/files/format';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { formatCid } from '@taxiarch/core/protocol/sacn';
import type { Commit } from '@taxiarch/core/protocol/xchange';
import { chooseInterface, listInterfaces } from '../bridge/interfaces';
import type { Notices } from '../bridge/notices';
import type { ShowDoor } from '../bridge/showDoor';
import type { SettingsFile } from '../settings';
import { CitpPeers } from './citpPeers';
import { Stations } from './stations';

export interface ExchangePorts {
  readonly mdns: number;
  readonly citp: number;
}

/** How often it is looked whether the interface in use is still the one. */
const LOOK_MS = 2000;

interface Told {
  readonly lamps: number;
  readonly fixtures: readonly CitpFixture[];
  readonly untold: number;
  readonly runs: ReadonlySet<number>;
}

const OFF: Pick<Settings, 'stations' | 'citp' | 'selects'> = { stations: false, citp: false, selects: false };

/** The notice that a station offers something. */
const offerOf = (stationId: string): string => `offer ${stationId}`;

export class Exchange {
  private stations: Stations | undefined;
  private citp: CitpPeers | undefined;
  /** What the running ones were begun with */
  private begunStations = '';
  private begunCitp = '';
  private why = '';
  /** The rig as others are told of it; undefined when an edit has made it another */
  private told: Promise<Told> | undefined;
  /** Beginning and ending follow each other, never beside each other */
  private turn: Promise<void> = Promise.resolve();
  private readonly timer: NodeJS.Timeout;

  constructor(
    private readonly show: ShowDoor,
    private readonly settings: SettingsFile,
    private readonly notices: Notices,
    private readonly ports: ExchangePorts,
  ) {
    this.follow();
    this.timer = setInterval(() => this.follow(), LOOK_MS);
    this.timer.unref();
  }

  private iface(): InterfaceInfo | null {
    return chooseInterface(listInterfaces(), this.settings.read().interface, this.show.plan().network);
  }

  /** Begins, ends, or begins anew what the settings say. */
  follow(wanted: Settings | typeof OFF = this.settings.read()): void {
    const iface = this.iface();
    this.turn = this.turn
      .then(() => this.followWith(wanted, iface))
      .catch((error: Error) => {
        this.why = error.message;
      });
  }

  private async followWith(wanted: Settings | typeof OFF, iface: InterfaceInfo | null): Promise<void> {
    const { stationName, stationGroup } = this.settings.read();
    const stations = wanted.stations && iface ? `${iface.address} ${stationName} ${stationGroup}` : '';
    const citp = wanted.citp && iface ? `${iface.address} ${stationName}` : '';
    this.why =
      (wanted.stations || wanted.citp) && !iface
        ? 'The interface in use is gone; choose another on This computer.'
        : '';
    if (stations !== this.begunStations) {
      this.begunStations = stations;
      for (const { stationId } of this.stations?.report().list ?? []) this.notices.dismiss(offerOf(stationId));
      await this.stations?.end();
      this.stations = undefined;
      if (stations !== '') await this.beginStations(iface!);
    }
    if (citp !== this.begunCitp) {
      this.begunCitp = citp;
      this.citp?.end();
      this.citp = undefined;
      if (citp !== '') await this.beginCitp(iface!);
    }
  }

  private async beginStations(iface: InterfaceInfo): Promise<void> {
    const { stationName: name, stationGroup: group } = this.settings.read();
    const stationId = formatCid(this.settings.cid);
    const made = new Stations({ stationId, name, group, iface, mdnsPort: this.ports.mdns }, (from, commit) =>
      this.offered(from, commit),
    );
    try {
      await made.start();
      this.stations = made;
    } catch (error) {
      this.begunStations = '';
      this.why = `Stations cannot be joined: ${(error as Error).message}.`;
    }
  }

  private async beginCitp(iface: InterfaceInfo): Promise<void> {
    const made = new CitpPeers({
      name: this.settings.read().stationName,
      iface,
      port: this.ports.citp,
      patch: async () => (await this.rig()).fixtures,
      selects: () => this.settings.read().selects,
    });
    try {
      await made.start();
      this.citp = made;
    } catch (error) {
      this.begunCitp = '';
      this.why = `Programs that speak CITP cannot be found: ${(error as Error).message}.`;
    }
  }

  private offered(from: string, { comment, stationId }: Commit): void {
    const said = comment === '' ? 'without a comment' : `“${comment}”`;
    this.notices.say(
      offerOf(stationId),
      `${from} offers a rig: ${said}.`,
      'Compare it on Rig, Exchange. Nothing is written by itself.',
    );
  }

  /** The show is another than before. */
  edited(): void {
    this.told = undefined;
  }

  private rig(): Promise<Told> {
    this.told ??= this.show.lamps(null).then((rig) => ({
      lamps: rig.lamp.length,
      fixtures: citpFixtures(rig),
      untold: untoldByCitp(rig),
      runs: new Set(rig.runs),
    }));
    // One that failed is asked for anew.
    this.told.catch(() => this.edited());
    return this.told;
  }

  async report(): Promise<ExchangeReply> {
    const stations = this.stations?.report() ?? null;
    if (!this.citp) return { stations, citp: null, why: this.why, untold: 0 };
    const { fixtures, untold, runs } = await this.rig();
    const differs = (patch: ReadonlyMap<number, CitpFixture>) => citpDiffers(fixtures, patch, runs);
    return { stations, citp: this.citp.report(differs), why: this.why, untold };
  }

  private on<T>(what: T | undefined, name: string): Result<T> {
    return what === undefined ? refuse('not-possible', `${name} is off. Switch it on first.`) : ok(what);
  }

  private async compare(kind: 'mvr' | 'table', name: string, bytes: Uint8Array): Promise<Result<string>> {
    const reply = await this.show.call('beginImport', { params: { kind }, query: { name }, bytes });
    const said = JSON.parse(new TextDecoder().decode(reply.bytes)) as { id?: string; detail?: string };
    return said.id === undefined ? refuse('taken', said.detail ?? 'It could not be read.') : ok(said.id);
  }

  /** Fetches a file of a station and begins to compare it; the id of the import. */
  async fetch(stationId: string, fileId: string): Promise<Result<string>> {
    const stations = this.on(this.stations, 'The exchange of rigs');
    if (!stations.ok) return stations;
    this.notices.dismiss(offerOf(stationId));
    const file = await stations.value.fetch(stationId, fileId);
    return file.ok ? this.compare('mvr', `${file.value.name}.mvr`, file.value.bytes) : file;
  }

  cancelFetch(): void {
    this.stations?.cancelFetch();
  }

  async commit(author: string, comment: string, forIds: readonly string[]) {
    const stations = this.on(this.stations, 'The exchange of rigs');
    if (!stations.ok) return stations;
    const file = await this.show.call('exportMvr', { params: {}, query: {}, bytes: new Uint8Array(0) });
    const { lamps } = await this.rig();
    const said = comment.trim() === '' ? author : `${comment.trim()} (${author})`;
    const told = await stations.value.commit(file.bytes, said, file.file, forIds, lamps);
    const { fileId } = stations.value.report().own.at(-1)!;
    return ok({ fileId, lamps, size: file.bytes.length, ...told });
  }

  async move(to: string): Promise<Result<string>> {
    const stations = this.on(this.stations, 'The exchange of rigs');
    return stations.ok ? stations.value.move(to) : stations;
  }

  async askPatch(peer: string): Promise<Result<string>> {
    const citp = this.on(this.citp, 'CITP');
    if (!citp.ok) return citp;
    const patch = await citp.value.askPatch(peer);
    if (!patch.ok) return patch;
    const { name, fixtures, whole } = patch.value;
    const { runs } = await this.rig();
    const lamps = fixtures.filter(({ number }) => !runs.has(number));
    return this.compare(
      'table',
      `${name}, its patch${whole ? '' : ' as far as it came'}.csv`,
      new TextEncoder().encode(citpTable(lamps)),
    );
  }

  async givePatch(peer: string): Promise<Result<number>> {
    const citp = this.on(this.citp, 'CITP');
    return citp.ok ? citp.value.givePatch(peer) : citp;
  }

  select(numbers: readonly number[]): Result<string[]> {
    const citp = this.on(this.citp, 'CITP');
    return citp.ok ? citp.value.select(numbers) : citp;
  }

  async end(): Promise<void> {
    clearInterval(this.timer);
    this.follow(OFF);
    await this.turn;
  }
}
