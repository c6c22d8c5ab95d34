/** A show that ships is opened together with its stand-ins: on the bad night they are wrong too. */
import type { ShippedShow } from '@taxiarch/core/contract';
import { badNightFaults } from '@taxiarch/core/practise';
import type { RawCall, RawReply, ShowEndpoint } from '../bridge/showMessages';
import type { ShowDoor } from '../bridge/showDoor';
import type { Bench } from '../practise/bench';

/** A call of the show; the stand-ins, if there are any, follow what was opened. */
export async function callShow(show: ShowDoor, bench: Bench, name: ShowEndpoint, call: RawCall): Promise<RawReply> {
  const reply = await show.call(name, call);
  if (name !== 'openShipped' || reply.status >= 300 || !bench.isThere) return reply;
  const opened = (JSON.parse(Buffer.from(call.bytes).toString('utf8')) as { show: ShippedShow }).show;
  try {
    await bench.reset();
    if (opened === 'bad-night') await bench.plant(badNightFaults().flatMap(({ hands }) => hands));
  } catch {
    // The show is open all the same; that the stand-ins have gone is said where they are looked at.
  }
  return reply;
}
