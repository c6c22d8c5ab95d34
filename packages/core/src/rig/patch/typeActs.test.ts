import { nightFerry } from '../../whole/demo';
import { footprintOf, formatRanges, modeFault, readOffsets, readRanges, repeatCells } from '../fixture';
import { changeType, patchFindings, removeType, rigOf } from '.';
import { recordsAfter } from '../../show/edit';

const ferry = rigOf(nightFerry());
const spot = ferry.records.type.find(({ id }) => id === 'type-spot-16')!;
const extended = spot.modes[1]!;
const none = new Map<string, string>();

test('a mode in use cannot go; the sentence says by whom', () => {
  expect(changeType(ferry, { ...spot, modes: [spot.modes[0]!] }, none)).toMatchObject({
    ok: false,
    why: 'Mode “Extended” is used by lamps 101, 102, 103 and 37 more. Change their mode first.',
  });
  expect(changeType(ferry, { ...spot, modes: [extended] }, none)).toMatchObject({ ok: true });
  expect(removeType(ferry, spot)).toMatchObject({ ok: false });
});

test('a mode that is renamed takes its lamps along', () => {
  const plan = changeType(ferry, { ...spot, modes: [{ ...extended, name: 'Long' }] }, new Map([['Extended', 'Long']]));
  if (!plan.ok) throw new Error(plan.why);
  const after = recordsAfter(ferry.records, plan.value.changes);
  expect(after.lamp.filter(({ typeId }) => typeId === spot.id).every(({ mode }) => mode === 'Long')).toBe(true);
});

test('a change says which lamps it alters, and what would collide', () => {
  const longer = {
    ...extended,
    channels: [
      ...extended.channels,
      { attribute: 'Fans', offsets: [footprintOf(extended) + 1], default: 0, highlight: 0 },
    ],
  };
  const plan = changeType(ferry, { ...spot, modes: [spot.modes[0]!, longer] }, none);
  if (!plan.ok) throw new Error(plan.why);
  expect(plan.value.lines).toHaveLength(41);
  expect(plan.value.lines[1]).toEqual({
    subject: '101 Port spot 1',
    before: 'Extended, 23 channels',
    after: 'Extended, 24 channels',
  });
  const after = rigOf(recordsAfter(ferry.records, plan.value.changes));
  expect(patchFindings(after.patch, after.records.universe).length).toBeGreaterThan(30);
});

test('a channel moved to a block of its own gives its lamps a free place for it', () => {
  const apart = {
    ...extended,
    channels: extended.channels.map((channel) =>
      channel.attribute === 'Control1' ? { ...channel, offsets: [1], block: 2 } : channel,
    ),
  };
  const plan = changeType(ferry, { ...spot, modes: [spot.modes[0]!, apart] }, none);
  if (!plan.ok) throw new Error(plan.why);
  const after = rigOf(recordsAfter(ferry.records, plan.value.changes));
  expect(patchFindings(after.patch, after.records.universe)).toEqual([]);
  expect(after.patch.lamp('lamp-101')!.spans).toHaveLength(2);
});

test('what cannot be is refused in a sentence', () => {
  const twice = { ...extended, channels: [extended.channels[0]!, extended.channels[0]!] };
  expect(changeType(ferry, { ...spot, modes: [spot.modes[0]!, twice] }, none)).toMatchObject({
    ok: false,
    why: 'Slot 1 of mode “Extended” is given to Pan and to Pan.',
  });
  expect(changeType(ferry, { ...spot, id: 'other' }, none)).toMatchObject({ ok: false });
  expect(changeType(ferry, spot, none)).toMatchObject({ ok: false, why: 'Nothing has been changed yet.' });
  expect(modeFault({ name: 'M', channels: [] })).toBe('Mode “M” has no channels.');
});

describe('notation', () => {
  test('slots and named values are read as they are written', () => {
    expect(readOffsets('5, 9')).toEqual({ ok: true, value: [5, 9] });
    expect(readOffsets('0')).toMatchObject({ ok: false });
    expect(readOffsets('3 3')).toMatchObject({ ok: false });
    const ranges = readRanges('open 255, strobe 10–99, shut 0-9', { offsets: [1] });
    expect(ranges.ok && ranges.value).toEqual([
      { name: 'open', from: 255, to: 255 },
      { name: 'strobe', from: 10, to: 99 },
      { name: 'shut', from: 0, to: 9 },
    ]);
    expect(formatRanges(ranges.ok ? ranges.value : [])).toBe('open 255, strobe 10–99, shut 0–9');
    expect(readRanges('far 300', { offsets: [1] })).toMatchObject({ ok: false });
    expect(readRanges('a 1-9, b 5-6', { offsets: [1] })).toMatchObject({
      ok: false,
      why: '“b 5-6” and “a” share values.',
    });
    expect(readRanges('far 300', { offsets: [1, 2] })).toMatchObject({ ok: true });
  });

  test('cells repeat cell by cell or channel by channel', () => {
    const rgb = ['R', 'G'].map((letter) => ({ attribute: letter, offsets: [1], default: 0, highlight: 255 }));
    const places = (order: 'by cell' | 'by channel') =>
      repeatCells(rgb, 3, order, 5).map(({ attribute, cell, offsets }) => `${attribute}${cell}@${offsets.join()}`);
    expect(places('by cell')).toEqual(['R1@5', 'G1@6', 'R2@7', 'G2@8', 'R3@9', 'G3@10']);
    expect(places('by channel')).toEqual(['R1@5', 'G1@8', 'R2@6', 'G2@9', 'R3@7', 'G3@10']);
  });
});
