import { printable } from '../../base/bytes';
import { readStartCode, startCodeName } from '.';

const ascii = (text: string) => [...text].map((character) => character.charCodeAt(0));

test.each([
  [0x17, [3, 40, ...ascii('Half hour'), 0, ...ascii('rest')], 'Page 3: Half hour'],
  [0x17, [1, 0, ...ascii('To the end')], 'Page 1: To the end'],
  [0x90, [0, 0, ...new TextEncoder().encode('Brücke\u0007\u202e!')], 'Page 0: Brücke !'],
  [0x17, [], ''],
  [0x17, [1, 20, 0], ''],
  [0x91, [0x7f, 0xf0], 'maker 0x7FF0'],
  [0x55, [0x55, 0x55], ''],
  [0xcf, [24, 0, 0, 0, 9], ''],
])('start code %i with %j says %j', (code, slots, said) =>
  expect(readStartCode(code, Uint8Array.from(slots))).toBe(said),
);

test('a System Information Packet tells its standard length and how many went before', () => {
  const slots = new Uint8Array(24);
  slots.set([24, 0, 0, 0, 9, 1, 0, 0, 0x02, 0x00, 0x03, 0xe8, 0x7f, 0xf0]);
  expect(readStartCode(0xcf, slots)).toBe(
    '512 slots are standard, 1000 packets since the last, sequence 9, made by 0x7FF0',
  );
});

test('codes go by name where they have one', () => {
  expect([0x17, 0xcf, 0x03].map(startCodeName)).toEqual(['0x17, text', '0xCF, system information', '0x03']);
});

test('text from the wire steers no screen', () => {
  expect(printable('a\u0000\u001b[31m\u2028b\u200f')).toBe('a [31m b');
  expect(printable('x'.repeat(1000))).toHaveLength(256);
});
