import { nightFerry } from '@taxiarch/core/whole/demo';
import { linkFormOf, newLinkForm, linkPlan, type LinkForm } from './linkForm';

const ferry = nightFerry();
const [first] = ferry.link;
const typed: LinkForm = {
  ...newLinkForm(ferry),
  senderId: 'machine-stern',
  visualiserId: 'machine-crow',
  lines: [{ from: 3, count: 6, to: 3 }],
};

test('a link of the show as a form changes nothing', () => {
  for (const link of ferry.link)
    expect(linkPlan(linkFormOf({ ...link }), { ...link, name: link.name }, 'x', ferry)).toMatchObject({
      why: 'Nothing would change.',
    });
});

test('a new link is named by its ends, and nothing in it is held well before anybody looked', () =>
  expect(linkPlan(typed, undefined, 'new', ferry)).toMatchObject({
    value: {
      sentence: 'Added the link Stern desk by sACN to Crow’s nest',
      changes: [{ after: { id: 'new', lines: [{ from: 3, count: 6, to: 3 }] } }],
    },
  }));

test('a changed base is told', () =>
  expect(linkPlan({ ...linkFormOf(first!), receiverBase: 0 }, first, 'x', ferry)).toMatchObject({
    value: { lines: [{ before: '1', after: '0' }] },
  }));

test.each([
  [{ senderId: '' }, /Choose the sender/],
  [{ visualiserId: '' }, /Choose the visualiser/],
  [{ lines: [] }, /Say which universes/],
  [{ lines: [{ from: 0, count: 1, to: 1 }] }, /at least 1/],
])('%j is refused in a sentence', (over, why) =>
  expect(linkPlan({ ...typed, ...over }, undefined, 'new', ferry)).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);

test('another order is told before it is written', () =>
  expect(linkPlan({ ...linkFormOf(first!), startsFirst: 'visualiser' }, first, 'x', ferry)).toMatchObject({
    value: {
      changes: [{ after: { startsFirst: 'visualiser' } }],
      lines: [{ before: 'sender', after: 'visualiser' }],
    },
  }));
