/** Test pictures, over HTTP. */
import { list, measure, name, oneOf, plain, plainOf, shape, text, whole } from '../../base/field';
import { TEST_PICTURES, type PictureWish, type TestPicture } from '../../rig/picture';
import { at } from './endpoint';
import { outputReport, type OutputReport } from './live';

const MOST_LAMPS = 20_000;
const client = text('Client', 80, { what: 'Say which client: “client”' });
const id = name('Picture', { longest: 80, what: 'The picture’s name' });
const reply = plain<OutputReport>(outputReport.schema);

const speed = measure('Speed', 0, 44, {
  type: 'a number of steps a second',
  below: 'must be at least 0.',
  above: 'must be at most 44.',
  unit: 'steps a second',
});
const level = measure('Level', 0, 1, {
  type: 'a number from 0 to 1',
  below: 'must be at least 0.',
  above: 'must be at most 1.',
});

/** How quick and how bright a picture is shown */
export const SHOWN = { speed, level };
const showing = { client, id, by: name('Person', { what: 'Say who does this: “by”' }), ...SHOWN };

export interface TestRequest {
  readonly client: string;
  readonly id: string;
  readonly by: string;
  readonly speed: number;
  readonly level: number;
  readonly picture: TestPicture;
  readonly lampIds: readonly string[];
  readonly universes: readonly number[];
}
export const testWish = ({ picture, lampIds, universes }: TestRequest): PictureWish => ({
  kind: 'test',
  ...{ picture, lampIds, universes },
});
export const PICTURE_ENDPOINTS = {
  showPicture: at('showPicture', {
    says: 'Show a test picture on lamps or on whole universes; another of the same name and client takes its place.',
    body: plainOf<TestRequest>(
      shape('Request', {
        ...showing,
        picture: oneOf('Picture', TEST_PICTURES),
        lampIds: list('Lamps', name('Lamp', { longest: 80 }), MOST_LAMPS),
        universes: list('Universes', whole('Universe', 1, 63_999), 1000),
      }),
    ),
    reply,
    problems: ['not-understood', 'safe', 'taken', 'not-possible', 'not-ready'],
  }),
  tunePicture: at('tunePicture', {
    says: 'Change speed and level of a picture that is shown.',
    body: shape('Request', { client, id, ...SHOWN }),
    reply,
    problems: ['not-understood', 'not-here', 'not-ready'],
  }),
  endPicture: at('endPicture', {
    says: 'End a picture, and give back what it took.',
    body: shape('Request', { client, id }),
    reply,
    problems: ['not-understood', 'not-here', 'not-ready'],
  }),
} as const;
