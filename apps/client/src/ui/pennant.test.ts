import { OWN_PENNANT, sendersOf } from '@taxiarch/core/network/flow';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Pennant } from '@taxiarch/core/show/records';
import { isOwnPennant, pennantShape } from './pennant';

const CUTS = ['swallow', 'notch', 'square', 'triangle'] as const;
const FILLS = ['plain', 'dots', 'bars', 'chevrons'] as const;

test('no two cuts and no two hatchings look alike, so that flags differ without their colour', () => {
  const of = (over: Partial<Pennant>) => pennantShape({ letter: 'B', cut: 'square', fill: 'plain', ...over });
  expect(new Set(CUTS.map((cut) => of({ cut }).outline)).size).toBe(CUTS.length);
  expect(new Set(FILLS.map((fill) => of({ fill }).hatching)).size).toBe(FILLS.length);
});

test('what Taxiarch sends has a tint that no other sender’s flag has', () => {
  const own = pennantShape(OWN_PENNANT);
  expect(isOwnPennant(OWN_PENNANT)).toBe(true);
  for (const letter of 'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789')
    for (const cut of CUTS)
      for (const fill of FILLS) {
        const pennant = { letter, cut, fill };
        if (!isOwnPennant(pennant)) expect(pennantShape(pennant).tint).not.toBe(own.tint);
      }
});

test('the senders of the demo show all fly different flags', () => {
  const flags = sendersOf(nightFerry().machine).map(
    ({ pennant }) => `${pennant.letter} ${pennant.cut} ${pennant.fill}`,
  );
  expect(new Set(flags).size).toBe(flags.length);
});
