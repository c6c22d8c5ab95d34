/** A show that ships is opened together with its stand-ins: on the bad night they are wrong too. */
import type { ShippedShow } from '@taxiarch/core/whole/contract';
import { badNightFaults } from '@taxiarch/core/truth/practise';
import type { RawCall, RawReply, ShowEndpoint } from '../bridge/showMessages';
import type { Notices } from '../bridge/notices';
import type { ShowDoor } from '../bridge/showDoor';
import type { Bench } from '../practise/bench';

/** A call of the show; the stand-ins, if there are any, follow what was opened. */
export async function callShow(
  show: ShowDoor,
  bench: Bench,
  notices: Pick<Notices, 'say'>,
  name: ShowEndpoint,
  call: RawCall,
): Promise<RawReply> {
  const reply = await show.call(name, call);
  if (name !== 'openShipped' || reply.status >= 300 || !bench.isThere) return reply;
  const opened = (JSON.parse(Buffer.from(call.bytes).toString('utf8')) as { show: ShippedShow }).show;
  try {
    await bench.reset();
    if (opened === 'bad-night') await bench.plant(badNightFaults().flatMap(({ hands }) => hands));
  } catch (error) {
    notices.say('stand-ins', `The show is open, and the stand-ins are as they were: ${(error as Error).message}`);
  }
  return reply;
}
