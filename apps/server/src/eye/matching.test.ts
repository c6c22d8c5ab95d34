/** Matching by eye on the rig: a person who sees what lights taps it; interrupted, it goes on where it was. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { keyOfItem, lit, type EyeReply } from '@taxiarch/core/proving/eye';
import { applyToRecords, type Change, type ProposedEdit } from '@taxiarch/core/show/edit';
import type { Lamp } from '@taxiarch/core/show/records';
import { LampSetter } from '../roll/setter';
import { RollCall } from '../roll/rollCall';
import { HungNet } from '../testing/hungNet';
import { until } from '../testing/until';
import { Matching } from './matching';

const folder = mkdtempSync(join(tmpdir(), 'taxiarch-eye-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
let folders = 0;

/** The ship, a server's parts, and the levels that they hold on the wire. */
function made(net = new HungNet(), home = mkdtempSync(join(folder, `${(folders += 1)}-`))) {
  let records = net.records;
  const propose = (edit: ProposedEdit) => {
    const changes = edit.changes.map(({ kind, id, after }): Change => ({ kind, id, before: null, after }));
    records = applyToRecords(records, changes);
    return Promise.resolve<string | undefined>(undefined);
  };
  const show = { ...net.show, propose, lamps: async () => ({ lamp: records.lamp, type: records.type, runs: [] }) };
  const roll = new RollCall(home, net.host, net.show, { say: () => undefined }, () => 0);
  const setter = new LampSetter(roll, show);
  const matching = new Matching(home, net.host, show, roll, setter);
  const lamp = (number: number): Lamp => records.lamp.find((one) => one.number === number)!;
  const edit = (kind: Change['kind'], after: Lamp) =>
    (records = applyToRecords(records, [{ kind, id: after.id, before: null, after }]));
  return { net, home, roll, matching, lamp, edit, records: () => records };
}
type Made = ReturnType<typeof made>;

/** Slots that are held now, by what was taken and given back. */
function held({ net }: Made): Map<string, number> {
  const now = new Map<string, number>();
  for (const order of net.orders) {
    if (order.type === 'take')
      for (const { key, levels } of order.order.universes)
        for (const [slot, level] of levels) now.set(`${key} ${slot}`, level!);
    if (order.type !== 'giveBack') continue;
    if (!order.order.slots) now.clear();
    else for (const [key, slot] of order.order.slots) now.delete(`${key} ${slot}`);
  }
  return now;
}

const showing = ({ net }: Made): string[] =>
  net.rig.lamps.filter(({ responder }) => responder.identifying).map(({ hung }) => hung.tag);

/** Taps what shows itself; returns the tag. */
async function tapNext(all: Made, reply: EyeReply, sure = false): Promise<EyeReply> {
  const item = lit(reply.running!)!;
  const tag = all.net.rig.lamps.find(({ uid }) => uid === item.uid)!.hung.tag;
  await until(() => showing(all).join() === tag);
  return all.matching.answer({ lit: keyOfItem(item), answer: 'tapped', lampIds: [`lamp-${tag}`], sure });
}

const wings = Array.from({ length: 18 }, (_, i) => 701 + i);
const begin = { by: 'Ivo', how: 'asked', lampIds: wings.map((number) => `lamp-${number}`), forget: 'none' } as const;

test('a fresh rig, all at one address, is matched by taps: each lamp is set, read back and known', async () => {
  const all = made();
  for (const number of wings)
    Object.assign(all.net.rig.lamp(String(number)).responder.state, { address: 1, personality: 1, label: '' });
  await all.roll.call({});
  let reply = await all.matching.begin(begin);
  expect(reply.left).toBe(18);
  // All at one address: a level would light them all, so none is taken; they show themselves.
  expect(held(all).size).toBe(0);
  while (reply.left > 0) reply = await tapNext(all, reply);
  await until(() => all.matching.look().then(({ lamps }) => lamps.every(({ says }) => says === 'Set and read back.')));
  for (const number of wings) {
    const { responder, hung } = all.net.rig.lamp(String(number));
    expect(responder.state).toMatchObject({ address: all.lamp(number).channel, personality: 2 });
    expect(all.lamp(number).uid).toBe(hung.uid);
  }
  await all.matching.end();
  expect([held(all).size, showing(all)]).toEqual([0, []]);
});

test('only the chosen are touched: those that are surely others neither show themselves nor are taken', async () => {
  const all = made();
  await all.roll.call({});
  const reply = await all.matching.begin({ ...begin, lampIds: begin.lampIds.slice(0, 3) });
  expect(reply.left).toBe(3);
  const slots = [...held(all).keys()].map((one) => Number(one.split(' ')[1]) + 1);
  const { channel } = all.lamp(704);
  expect(slots.length).toBeGreaterThan(0);
  expect(Math.max(...slots)).toBeLessThan(channel);
  expect(reply.likely).toBe(`lamp-${all.net.rig.lamps.find(({ uid }) => uid === lit(reply.running!)!.uid)!.hung.tag}`);
  await all.matching.end();
});

test('a phone that looks on while another ends it lights nothing again', async () => {
  const all = made();
  await all.roll.call({});
  await all.matching.begin({ ...begin, lampIds: begin.lampIds.slice(0, 3) });
  expect(held(all).size).toBeGreaterThan(0);
  const ended = all.matching.end();
  const looks = Array.from({ length: 3 }, () => all.matching.look());
  await Promise.all([ended, ...looks]);
  await all.matching.look();
  expect([held(all).size, showing(all)]).toEqual([0, []]);
});

test('a tap that cannot be right asks, and is taken when the person is sure', async () => {
  const all = made();
  await all.roll.call({});
  let reply = await all.matching.begin(begin);
  const item = lit(reply.running!)!;
  const tap = (lampId: string, sure = false) =>
    all.matching.answer({ lit: keyOfItem(item), answer: 'tapped', lampIds: [lampId], sure });
  await expect(tap('lamp-101')).rejects.toThrow(/not among the lamps that were chosen/);
  reply = await tap('lamp-702');
  // Another phone is too late for it.
  await expect(tap('lamp-703')).rejects.toThrow(/answered already/);
  const next = lit(reply.running!)!;
  const again = (sure: boolean) =>
    all.matching.answer({ lit: keyOfItem(next), answer: 'tapped', lampIds: ['lamp-702'], sure });
  await expect(again(false)).rejects.toThrow(/tapped before. Is it really this one/);
  expect((await again(true)).left).toBe(16);
  await all.matching.end();
});

test('back, and tapped as another: the lamp before is not known by it any more', async () => {
  const all = made();
  await all.roll.call({});
  let reply = await all.matching.begin(begin);
  const { uid } = lit(reply.running!)!;
  const tap = (lampId: string) => all.matching.answer({ lit: uid, answer: 'tapped', lampIds: [lampId] });
  await tap('lamp-705');
  await until(() => all.lamp(705).uid === uid);
  reply = await all.matching.back();
  expect(lit(reply.running!)!.uid).toBe(uid);
  await tap('lamp-706');
  await until(() => all.lamp(706).uid === uid);
  expect(all.lamp(705).uid).toBe('');
  await all.matching.end();
});

test('after a restart it goes on where it was, and none is lost', async () => {
  const all = made();
  await all.roll.call({});
  let reply = await all.matching.begin(begin);
  for (let i = 0; i < 5; i += 1) reply = await tapNext(all, reply);
  await until(() => all.matching.look().then(({ running }) => running!.steps.every(({ outcome }) => outcome !== '')));
  // The server starts anew: safe, and nobody has been asked.
  const next = made(all.net, all.home);
  all.net.hot = false;
  reply = await next.matching.look();
  expect([reply.left, reply.lighting]).toEqual([13, 'safe']);
  expect(reply.running!.steps).toHaveLength(5);
  all.net.hot = true;
  await until(() => next.matching.look().then(({ trouble, lighting }) => lighting === 'on' && trouble === ''));
  reply = await next.matching.look();
  while (reply.left > 0) reply = await tapNext(next, reply);
  await until(() => next.matching.look().then(({ lamps }) => lamps.every(({ state }) => state === 'done')));
  await next.matching.end();
});

test('one that refuses is matched and not done; it does not glow like those that are', async () => {
  const all = made();
  all.net.rig.lamp('701').err({ refuses: true });
  all.net.rig.lamp('701').responder.state.personality = 1;
  await all.roll.call({});
  let reply = await all.matching.begin({ ...begin, lampIds: begin.lampIds.slice(0, 2) });
  while (reply.left > 0) reply = await tapNext(all, reply);
  await until(() => all.matching.look().then(({ lamps }) => lamps.every(({ state }) => state !== 'being set')));
  const { lamps } = await all.matching.look();
  expect(lamps.map(({ id, state }) => [id, state])).toEqual([
    ['lamp-701', 'not set'],
    ['lamp-702', 'done'],
  ]);
  expect(lamps[0]!.says).toBe('It refuses: it is locked against writing.');
  // Who it is is known all the same.
  expect(all.lamp(701).uid).toBe(all.net.rig.lamp('701').hung.uid);
  const of = (number: number) =>
    [...held(all)].filter(([key]) => {
      const slot = Number(key.split(' ')[1]) + 1;
      return slot >= all.lamp(number).channel && slot < all.lamp(number).channel + 4;
    });
  expect([of(701).length > 0, of(702).length > 0]).toEqual([false, true]);
  await all.matching.end();
});

test('slots of lamps that cannot answer and were not chosen are never taken, though one that answers is set to them', async () => {
  const all = made();
  // Boiler petal 1 is set to where the pump relays are, which nobody can ask.
  all.net.rig.lamp('301').responder.state.address = all.lamp(371).channel;
  await all.roll.call({});
  const reply = await all.matching.begin({ ...begin, lampIds: ['lamp-301'], forget: 'all' });
  await until(() => showing(all).join() === '301');
  expect([reply.left, held(all).size]).toEqual([1, 0]);
  await all.matching.end();
});

test('levels never go to a port that is set to another number: they would light others', async () => {
  const net = new HungNet();
  const all = made(net);
  await all.roll.call({});
  await all.matching.begin({ ...begin, lampIds: ['lamp-301'], forget: 'all' });
  await until(() => showing(all).length > 0 && held(all).size > 0);
  await all.matching.end();
  const at = net.ports.findIndex(({ plug }) => plug.box === 'boiler' && plug.port === 1);
  net.ports[at] = { ...net.ports[at]!, portAddress: 900 };
  await all.roll.call({});
  await expect(all.matching.begin({ ...begin, lampIds: ['lamp-301'], forget: 'all' })).rejects.toThrow();
  expect(held(all).size).toBe(0);
});

test('made safe, the lamp that showed itself stops; and so it does when the match is ended while safe', async () => {
  const all = made();
  await all.roll.call({});
  await all.matching.begin(begin);
  await until(() => showing(all).length === 1);
  all.net.hot = false;
  await until(() => showing(all).length === 0);
  all.net.hot = true;
  await all.matching.look();
  await until(() => showing(all).length === 1);
  all.net.hot = false;
  await all.matching.end();
  expect(showing(all)).toEqual([]);
});

test('a lamp is set as the plan has it when it is tapped, not as it was at the begin', async () => {
  const all = made();
  await all.roll.call({});
  const reply = await all.matching.begin({ ...begin, lampIds: ['lamp-705'] });
  all.edit('lamp', { ...all.lamp(705), channel: 400 });
  await tapNext(all, reply);
  await until(() => all.matching.look().then(({ lamps }) => lamps[0]!.state === 'done'));
  expect(all.net.rig.lamp('705').responder.state.address).toBe(400);
  await all.matching.end();
});

test('nothing is lit while safe, and only one matches at a time', async () => {
  const all = made();
  all.net.hot = false;
  await expect(all.matching.begin(begin)).rejects.toThrow(/safe and lights nothing/);
  all.net.hot = true;
  await expect(all.matching.begin(begin)).rejects.toThrow(/Call the roll first/);
  await all.roll.call({});
  await all.matching.begin(begin);
  await expect(all.matching.begin(begin)).rejects.toThrow(/matches lamps by eye already/);
  await all.matching.end();
  await expect(all.matching.back()).rejects.toThrow(/Nobody matches/);
});

test('what is matched is kept, unless it is to be forgotten', async () => {
  const all = made();
  await all.roll.call({});
  let reply = await all.matching.begin({ ...begin, lampIds: begin.lampIds.slice(0, 4) });
  while (reply.left > 0) reply = await tapNext(all, reply);
  await until(() => all.matching.look().then(({ lamps }) => lamps.every(({ says }) => says !== 'It is being set.')));
  await all.matching.end();
  expect((await all.matching.begin(begin)).left).toBe(14);
  await all.matching.end();
  // Nothing was matched in the session that ended last: there are no new ones to forget.
  expect((await all.matching.begin({ ...begin, forget: 'all' })).left).toBe(18);
  await all.matching.end();
});

test('without asking, lamps are found where they are, by a person who sees what lights', async () => {
  const all = made();
  const chosen = [21, 22, 23, 24, 25, 26];
  all.net.rig.lamp('22').responder.state.address = 420;
  all.net.rig.lamp('23').responder.state.address = 333;
  all.net.rig.lamp('24').err({ dead: true });
  let reply = await all.matching.begin({
    ...begin,
    how: 'stretches',
    lampIds: chosen.map((number) => `lamp-${number}`),
  });
  const sees = (): string[] => {
    const now = held(all);
    const levels = Uint8Array.from({ length: 512 }, (_, slot) => now.get(`1 ${slot}`) ?? 0);
    // Who glows was found already; full is what lights now.
    return chosen
      .map(String)
      .filter((tag) => Math.max(...all.net.rig.lamp(tag).shows(levels, 0).colour) > 0.9)
      .map((tag) => `lamp-${tag}`);
  };
  let asked = 0;
  for (let item = lit(reply.running!); item; item = lit(reply.running!)) {
    const lampIds = sees();
    const answer = lampIds.length > 0 ? 'tapped' : 'not seen';
    reply = await all.matching.answer({ lit: keyOfItem(item), answer, lampIds });
    asked += 1;
  }
  expect(asked).toBeLessThan(30);
  const stands = new Map(reply.lamps.map(({ id, state, says }) => [id, `${state}: ${says}`]));
  expect(stands.get('lamp-21')).toBe('done: Seen to light by its planned channels.');
  expect(stands.get('lamp-22')).toBe('elsewhere: It lights by 1/420; planned is 1/14.');
  expect(stands.get('lamp-23')).toBe('elsewhere: It lights by 1/333; planned is 1/15.');
  expect(stands.get('lamp-24')).toBe('not found: Nobody saw it light.');
  // Nothing of another lamp's was ever held.
  const others = all.records().lamp.filter(({ universe, number }) => universe === 1 && !chosen.includes(number));
  const slots = new Set(
    all.net.orders.flatMap((order) =>
      order.type === 'take' ? order.order.universes.flatMap(({ levels }) => levels.map(([slot]) => slot + 1)) : [],
    ),
  );
  expect(others.filter(({ channel }) => slots.has(channel))).toEqual([]);
  await all.matching.end();
});
