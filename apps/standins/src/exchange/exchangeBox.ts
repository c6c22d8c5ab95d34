/** What a stand-in does with others: a station with a file of its own, a CITP peer, and its page of both. */
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { PanelAct, PanelPage } from '../panel';
import { CitpBox, type CitpSetup } from './citpBox';
import { exchangePage } from './exchangePage';
import { HeldRig, type Otherwise, withOtherwise } from './heldRig';
import { StationBox } from './station';

export interface ExchangePorts {
  readonly mdns: number;
  readonly citp: number;
}

export interface ExchangeSetup {
  readonly name: string;
  readonly address: string;
  readonly stationId: string;
  readonly provider: string;
  readonly type: CitpSetup['type'];
  readonly otherwise: Otherwise;
}

/** `drawn` is told what it holds from now on. */
export async function openExchange(
  { name, address, stationId, provider, type, otherwise }: ExchangeSetup,
  records: ShowRecords,
  { mdns, citp }: ExchangePorts,
  drawn?: (records: ShowRecords) => void,
) {
  const rig = new HeldRig(withOtherwise(records, otherwise), records, drawn);
  const station = new StationBox({ stationId, name, provider, address, mdnsPort: mdns }, rig);
  const peer = new CitpBox({ name, type, address, port: citp }, rig);
  await station.start();
  await peer.start();
  const held = () => ({
    ...station.report(),
    ...peer.report(),
    rig: rig.lamps().map((one) => ({
      number: one.number,
      name: one.name,
      universe: one.universe,
      channel: one.channel,
      mode: one.mode,
    })),
  });
  const reset = () => rig.reset();
  const acts: Record<string, PanelAct> = {
    /** Holds its own file again, as it was shipped. */
    reset,
    held,
    /** Offers what it holds, with a comment. */
    commit: ({ comment }) => station.commit(String(comment ?? '')),
    /** Selects lamps by number. */
    select: ({ numbers }) => peer.select((numbers as number[]).map(Number)),
    /** It goes away after so many bytes of a file; nothing for never. */
    vanish: ({ after }) => {
      station.vanishesAfter = after === undefined ? Infinity : Number(after);
    },
  };
  const pages: Record<string, PanelPage> = {
    exchange: () => ({ type: 'text/html; charset=utf-8', body: exchangePage(name) }),
  };
  const run = (on: boolean) => {
    station.run(on);
    peer.run(on);
  };
  const end = () => {
    station.end();
    peer.end();
  };
  return { acts, pages, run, reset, end };
}
