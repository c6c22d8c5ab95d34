import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import type { ShowRecords } from '../../show/records';
import { outputTable, readOutputTable, writeTable } from '.';

const ferry = nightFerry();
const table = writeTable(outputTable(ferry));
const bridge = (records: ShowRecords) => records.machine.find(({ name }) => name === 'Bridge desk')!;

test('what is written is read as no change', () =>
  expect(readOutputTable(table, ferry)).toMatchObject({
    ok: true,
    value: { plan: { ok: false, why: 'Nothing would change.' }, bad: [] },
  }));

test('lines of the table take the place of a sender’s lines; other senders are left alone', () => {
  const result = readOutputTable(
    'Sender,From,Count,To,Delivery,Addresses,Slot priority\r\nbridge DESK,1,100,artnet 0,unicast,10.0.0.4 10.0.0.5,yes\r\n',
    ferry,
  );
  if (!result.ok || !result.value.plan.ok) throw new Error('The table should be understood.');
  const after = recordsAfter(ferry, result.value.plan.value.changes);
  expect(bridge(after).sends!.lines).toMatchObject([
    {
      from: 1,
      count: 100,
      to: { protocol: 'artnet', number: 0 },
      delivery: 'unicast',
      addresses: ['10.0.0.4', '10.0.0.5'],
      slotPriority: true,
      on: true,
    },
  ]);
  expect(after.machine.filter((one) => one.name !== 'Bridge desk')).toEqual(
    ferry.machine.filter((one) => one.name !== 'Bridge desk'),
  );
});

test.each([
  ['Nobody,1,1,,', /No sender of the show is called “Nobody”/],
  ['Bridge desk,x,1,,', /universe/i],
  ['Bridge desk,1,1,dmx-4,', /no universe on the wire/],
  ['Bridge desk,1,10,sacn-63995,', /beyond what the protocol can number/],
  ['Bridge desk,1,1,,pigeon', /none of usual/],
  ['Bridge desk,1,1,,unicast', /to which addresses/],
])('“%s” is left out and told', (row, why) => {
  const result = readOutputTable(`Sender,From,Count,To,Delivery\r\n${row}\r\n`, ferry);
  expect(result).toMatchObject({ ok: true, value: { bad: [{ line: 2, why: expect.stringMatching(why) as string }] } });
});

test('a table without the needed columns is refused', () =>
  expect(readOutputTable('A,B\r\n1,2', ferry)).toMatchObject({ ok: false, why: 'The table has no column “Sender”.' }));
