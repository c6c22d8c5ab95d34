/** The engine's hot path, run before the first real packet: code that is still cold would cost packets. */
import { Sacn, encodeData } from '@taxiarch/core/protocol/sacn';
import { encodeDmx } from '@taxiarch/core/protocol/artnet';
import { Ingest } from './listening/ingest';
import { SharedLevels } from '../bridge/shared';
import { LiveUniverse } from './listening/universe';

const PACKETS = 20_000;
const UNIVERSES = 200;

/** Takes about a tenth of a second; what it takes in goes into memory of its own and is forgotten. */
export function warmUp(): void {
  const nothing = () => undefined;
  const ingest = new Ingest(
    new SharedLevels(),
    (key, row, shared) => new LiveUniverse(key, row, shared),
    { taken: new Uint8Array(Sacn.CID_LENGTH), routes: new Uint8Array(Sacn.CID_LENGTH) },
    {
      onLevels: nothing,
      onSyncAddress: nothing,
      onUniverse: nothing,
      onDiscovered: nothing,
      onPoll: nothing,
      onPollReply: nothing,
      onIpProgReply: nothing,
      onLamps: () => undefined,
      onOther: nothing,
    },
  );
  const slots = new Uint8Array(512);
  const cid = new Uint8Array(Sacn.CID_LENGTH).fill(1);
  const flags = { preview: false, terminated: false, forceSync: false };
  const rest = { cid, sourceName: '', priority: 100, syncAddress: 0, sequence: 0, startCode: 0, slots, ...flags };
  const sacn = Buffer.from(encodeData({ ...rest, universe: 1 }));
  const dmx = Buffer.from(encodeDmx({ sequence: 1, physical: 0, portAddress: 0, slots }));
  for (let i = 0; i < PACKETS; i += 1) {
    const round = Math.floor(i / UNIVERSES);
    sacn[111] = round & 0xff;
    sacn[114] = (i % UNIVERSES) + 1;
    sacn[126 + (i % 512)] = i & 0xff;
    ingest.sacn(sacn, '127.0.0.1', 5568, round * 23);
    dmx[12] = (round % 255) + 1;
    dmx[14] = i % UNIVERSES;
    ingest.artnet(dmx, '127.0.0.1', 'others', 0, round * 23);
    if (i % UNIVERSES === 0)
      for (const universe of ingest.universes) if (universe.dirty) universe.merge(round * 23, 2500);
  }
  for (const universe of ingest.universes) for (const stream of universe.streams) stream.report(PACKETS, 2500, 0);
}
