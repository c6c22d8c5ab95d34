/** What follows a roll call: lamps are set, the plan takes over what they say, a new one is greeted. */
import { rigOf } from '@taxiarch/core/rig/patch';
import { Rdm } from '@taxiarch/core/protocol/rdm';
import { takeOver } from '@taxiarch/core/truth/roll';
import { recordsAfter } from '@taxiarch/core/show/edit';
import type { ProposedEdit } from '@taxiarch/core/show/edit';
import { LampSetter } from './setter';
import { made, uidOf } from './testing/calls';

describe('setting lamps', () => {
  test('each is read back; one that refuses and one that is deaf hold up no other; how they were is kept first', async () => {
    const { call, rig, setter, reply, edits } = made();
    const wrong = ['103', '109', '111'];
    for (const tag of wrong) rig.lamp(tag).responder.state.address = 300;
    rig.lamp('109').err({ refuses: true });
    await call();
    rig.lamp('111').err({ deaf: true });
    const rows = reply().rows.filter(({ state }) => state === 'differs');
    const results = await setter.set(rows.map(({ uid, wanted }) => ({ uid, address: wanted!.address })));
    const said = new Map(results.map((one) => [one.uid, one]));
    expect(said.get(uidOf('103'))).toMatchObject({ state: 'done' });
    expect(said.get(uidOf('109'))).toMatchObject({
      state: 'refused',
      says: 'It refuses: it is locked against writing.',
    });
    expect(said.get(uidOf('111'))).toMatchObject({ state: 'no answer' });
    expect(rig.lamp('103').responder.state.address).toBe(47);
    const [{ changes }] = edits as [ProposedEdit];
    const kept = changes[0]!.after as unknown as { lamps: { uid: string; address: number }[] };
    expect(kept.lamps).toContainEqual(expect.objectContaining({ uid: uidOf('103'), address: 300 }));
  });

  test('if how they were cannot be kept, nothing is set', async () => {
    const { call, rig, roll } = made();
    await call();
    const setter = new LampSetter(roll, { propose: async () => 'the disk is full' });
    await expect(setter.set([{ uid: uidOf('103'), address: 9 }])).rejects.toThrow(/disk is full.*nothing was set/);
    expect(rig.lamp('103').responder.state.address).toBe(47);
  });

  test('a slow one is waited for, and a label and a mode are set too', async () => {
    const { call, rig, setter } = made();
    await call();
    rig.lamp('441').err({ slow: 100 });
    const [outcome] = await setter.set([{ uid: uidOf('441'), mode: 3, label: 'Bar' }]);
    expect(outcome).toMatchObject({ state: 'done' });
    expect(rig.lamp('441').responder.state).toMatchObject({ personality: 3, label: 'Bar' });
  });

  test('everything that it offers is read with its range, and set for many', async () => {
    const { call, rig, setter } = made();
    await call();
    const uids = [uidOf('101'), uidOf('102')];
    const fan = (await setter.parameters(uids[0]!)).find(({ name }) => name === 'Fan speed')!;
    expect(fan).toMatchObject({ least: 0, most: 3, settable: true, value: 0 });
    expect((await setter.setParameter(uids, fan.pid, 2)).map(({ state }) => state)).toEqual(['done', 'done']);
    expect(rig.lamp('102').responder.state.values[fan.pid]).toBe(2);
    const says = 'Fan speed runs from 0 to 3.';
    expect(await setter.setParameter(uids, fan.pid, 9)).toEqual(uids.map((uid) => ({ uid, state: 'refused', says })));
    await expect(setter.setParameter(uids, Rdm.PAN_INVERT, 2)).rejects.toThrow('Pan reversed runs from 0 to 1.');
  });

  test('of a setting with several values one is set, and the others stay; numbered ones have the lamp’s own names', async () => {
    const { call, rig, setter } = made();
    await call();
    const uids = [uidOf('101'), uidOf('102')];
    const offered = async () => Object.fromEntries((await setter.parameters(uids[1]!)).map((one) => [one.name, one]));
    const { 'When DMX fails, level': level } = await offered();
    expect(level).toMatchObject({ pid: Rdm.DMX_FAIL_MODE, part: 3, value: 0, most: 255, settable: true });
    await setter.setParameter(uids, Rdm.DMX_FAIL_MODE, 25, 1);
    const [done] = await setter.setParameter(uids, Rdm.DMX_FAIL_MODE, 128, 3);
    expect(done).toMatchObject({ state: 'done', says: 'When DMX fails, level is 128.' });
    const after = await offered();
    expect([after['When DMX fails, begins after']!.text, after['When DMX fails, is held for']!.text]).toEqual([
      '2.5 s',
      'for ever',
    ]);
    expect(rig.lamp('102').responder.state.several![Rdm.DMX_FAIL_MODE]).toEqual([0, 25, 0xffff, 128]);
    expect(after['Curve']).toMatchObject({
      text: 'Linear',
      choices: expect.arrayContaining([{ value: 2, label: 'Square' }]),
    });
    expect(await setter.setParameter(uids, Rdm.CURVE, 9)).toMatchObject([{ state: 'refused' }, { state: 'refused' }]);
  });

  test('what it does once is not called read back; as it was made, its address is read again and how it was is kept', async () => {
    const { call, rig, roll, setter, edits } = made();
    await call();
    const uid = uidOf('103');
    const { startAddress: made1 } = roll.lamp(uid);
    await setter.set([{ uid, address: 300 }]);
    const [again] = await setter.setParameter([uid], Rdm.RESET_DEVICE, 1);
    expect(again).toMatchObject({ state: 'done', says: 'Begins anew: it took warm; it cannot be read back.' });
    edits.length = 0;
    expect(await setter.setParameter([uid], Rdm.FACTORY_DEFAULTS, 1)).toEqual([
      { uid, state: 'done', says: 'As it was made is yes.' },
    ]);
    expect([rig.lamp('103').responder.state.address, roll.lamp(uid).startAddress]).toEqual([made1, made1]);
    const [{ changes }] = edits as [ProposedEdit];
    expect((changes[0]!.after as unknown as { lamps: unknown }).lamps).toMatchObject([{ uid, address: 300 }]);
  });

  test('a lamp that nobody has seen is not set', async () => {
    const { setter } = made();
    await expect(setter.set([{ uid: '7ff1:00000001', address: 1 }])).rejects.toThrow(/has answered yet/);
  });
});

test('the lamps’ truth goes into the plan: address, mode, universe and who they are', async () => {
  const { call, rig, net } = made();
  rig.lamp('103').responder.state.address = 490;
  rig.lamp('441').responder.state.personality = 1;
  rig.lamp('105').plug = { box: 'car-deck', port: 2 };
  rig.moved();
  const { rows } = await call();
  const plan = takeOver(
    rigOf(net.records),
    rows.filter(({ state }) => state === 'differs'),
  );
  if (!plan.ok) throw new Error(plan.why);
  const after = recordsAfter(net.records, plan.value.changes);
  const lamp = (number: number) => after.lamp.find((one) => one.number === number)!;
  expect(lamp(103)).toMatchObject({ universe: 2, channel: 490, uid: uidOf('103') });
  expect(lamp(441)).toMatchObject({ mode: 'RGBW', uid: uidOf('441') });
  expect(lamp(105)).toMatchObject({ universe: 3 });
  expect(takeOver(rigOf(net.records), [])).toMatchObject({ ok: false });
});

test('a call can be ended, and says so; another may begin then', async () => {
  const { net, roll, reply, call } = made();
  net.share = 0.05;
  const running = roll.call({});
  expect(() => roll.call({})).toThrow(/runs already/);
  await new Promise((done) => setImmediate(done));
  roll.cancel();
  await running;
  expect(reply().progress).toMatchObject({ running: false, cancelled: true });
  expect(reply().sentence).toMatch(/ended before its end/);
  expect(reply().rows.filter(({ state }) => state === 'missing')).toEqual([]);
  net.share = Infinity;
  expect((await call()).sentence).toMatch(/^346 of 420/);
  expect(() => roll.cancel()).toThrow(/No roll call runs/);
});

test('a new lamp is greeted where a person wants that', async () => {
  const { roll } = made();
  expect(roll.greets).toBe(false);
  roll.setGreet(true);
  expect(roll.greets).toBe(true);
});
