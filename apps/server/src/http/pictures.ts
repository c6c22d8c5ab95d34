/** Test pictures, and lamps as a walk shows them: taken like anything else, and given back like it. */
import { testWish, type TestRequest } from '@taxiarch/core/whole/contract';
import type { EngineHost } from '../bridge/host';
import type { ShowDoor } from '../bridge/showDoor';
import type { Feed } from '../feed/feed';
import { ProblemError } from '../problemError';
import { showsOf } from '../walk/lights';
import type { Handlers } from './api';

type PictureHandlers = Pick<Handlers, 'showPicture' | 'tunePicture' | 'endPicture'>;

export function pictureHandlers(
  host: Pick<EngineHost, 'now' | 'ask'>,
  show: Pick<ShowDoor, 'plan' | 'program'>,
  feed: Pick<Feed, 'mind'>,
): PictureHandlers {
  const begin = async (body: TestRequest) => {
    const { client, id, by, speed, level, picture } = body;
    if (!host.now().output.hot)
      throw new ProblemError('safe', 'Taxiarch is safe and lights nothing. Make it hot first.');
    const program = await show.program(testWish(body));
    if (!program.ok) throw new ProblemError('not-possible', program.why);
    const shows = showsOf(program.value, show.plan());
    const order = { id, client, by, says: picture, program: program.value, shows, speed, level };
    const refused = await host.ask({ type: 'picture', order });
    if (refused !== undefined) throw new ProblemError('taken', refused);
    feed.mind(client);
    return host.now().output;
  };
  const there = (refused: string | undefined) => {
    if (refused !== undefined) throw new ProblemError('not-here', refused);
    return host.now().output;
  };
  return {
    showPicture: ({ body }) => begin(body),
    tunePicture: async ({ body }) => there(await host.ask({ type: 'tunePicture', ...body })),
    endPicture: async ({ body }) => there(await host.ask({ type: 'endPicture', ...body })),
  };
}
