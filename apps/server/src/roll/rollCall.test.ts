/** The roll call over Art-Net's own packets, on a rig that is wrong on purpose: each fault is told by its name. */
import { rmSync } from 'node:fs';
import { hungShip } from '@taxiarch/core/whole/demo';
import type { LampFaults } from '@taxiarch/core/truth/hung';
import { rigOf } from '@taxiarch/core/rig/patch';
import { Rdm } from '@taxiarch/core/protocol/rdm';
import { keepUids, typeFrom, type RollReply } from '@taxiarch/core/truth/roll';
import { writeRollTable } from '@taxiarch/core/files/format';
import { recordsAfter } from '@taxiarch/core/show/edit';
import { HungNet } from '../testing/hungNet';
import { folder, made, uidOf } from './testing/calls';

afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('on a rig that is as planned', () => {
  const all = made();
  let first: RollReply;
  beforeAll(async () => (first = await all.call()));

  test('everybody is told by a word, and nobody is said to be more than is known', () => {
    expect(first.sentence).toBe('346 of 420 lamps answer as planned. 12 cannot answer, 62 cannot be asked.');
    expect(first.troubles).toEqual([]);
    expect(first.progress).toMatchObject({ running: false, done: 346, more: 346, of: 346, cancelled: false });
    const row = all.row(101);
    expect(row).toMatchObject({ state: 'as planned', confidence: 'sure', port: 'Car deck node, port 1' });
    expect(row.seen).toMatchObject({ maker: 'Baleen', model: 'Spot 16', firmware: '1.2.3', label: 'Port spot 1' });
    expect(row.seen!.sensors[0]).toMatchObject({ name: 'Light engine', text: '24 °C', normal: true });
    expect(row.seen!.hours).toBeGreaterThan(0);
    expect(all.row(361)).toMatchObject({ state: 'cannot answer' });
    expect(all.row(51).says).toBe('Foredeck node, port 1 has no RDM.');
  });

  test('before anybody is asked nothing is claimed', () => {
    expect(made().reply().sentence).toBe('Nobody has asked the 420 lamps yet.');
  });

  test('hours and temperatures go out as a table', () => {
    const [head, ...rows] = writeRollTable(first).trim().split('\r\n');
    expect(rows).toHaveLength(420);
    expect(head).toContain('Light hours');
    expect(rows.find((one) => one.startsWith('101,'))).toContain('Light engine 24 °C');
  });

  test('who they are is kept, and then they are known whatever they are set to', async () => {
    const plan = keepUids(rigOf(all.net.records), first.rows);
    if (!plan.ok) throw new Error(plan.why);
    expect(plan.value.changes).toHaveLength(346);
    const known = recordsAfter(all.net.records, plan.value.changes);
    all.rig.lamp('101').responder.state.address = 400;
    all.rig.lamp('101').responder.state.label = '';
    await all.roll.call({});
    const row = all.reply(known).rows.find((one) => one.number === 101)!;
    expect(row).toMatchObject({ state: 'differs', confidence: 'known' });
    // Two that hang each in the other's place answer as planned to whoever does not know who they are.
    const [one, other] = [all.rig.lamp('110'), all.rig.lamp('112')];
    const [a, b] = [one.responder.state.address, other.responder.state.address];
    Object.assign(one.responder.state, { address: b, label: '' });
    Object.assign(other.responder.state, { address: a, label: '' });
    await all.roll.call({});
    const swapped = (records: typeof known) =>
      [110, 112].map((number) => all.reply(records).rows.find((row) => row.number === number)!.state);
    expect(swapped(known)).toEqual(['differs', 'differs']);
    expect(swapped(all.net.records)).toEqual(['as planned', 'as planned']);
    expect(keepUids(rigOf(known), all.reply(known).rows)).toMatchObject({ ok: false });
  });
});

const FAULTS: readonly (readonly [string, string, Partial<LampFaults>, string, RegExp])[] = [
  ['missing', '106', { missing: true }, 'missing', /not connected, without power, or not receiving/],
  ['deaf', '107', { deaf: true }, 'missing', /not connected, without power, or not receiving/],
  ['coarse', '108', { coarse: true }, 'differs', /In mode Extended, 21 slots where Extended, 23 slots is planned/],
  ['slow', '233', { slow: 120 }, 'as planned', /as planned/],
];

test.each(FAULTS)('one that is %s is told so', async (_, tag, faults, state, says) => {
  const { call, rig, row } = made();
  rig.lamp(tag).err(faults);
  await call();
  expect(row(Number(tag))).toMatchObject({ state });
  expect(row(Number(tag)).says).toMatch(says);
});

describe('a lamp is called missing only after a second look', () => {
  test('a table that a busy node gave in part is asked for again', async () => {
    const { net, roll, reply, row } = made();
    const table = net.host.table;
    let times = 0;
    net.host.table = async (port, afresh) => {
      const whole = await table(port, afresh);
      if (
        port.portAddress !== net.ports.find(({ plug }) => plug.box === 'car-deck')!.portAddress ||
        port.address !== net.ports[0]!.address
      )
        return whole;
      times += 1;
      return times > 1 ? whole : { ...whole, uids: whole.uids.slice(0, 1) };
    };
    await roll.call({ ports: [net.ports.find(({ plug }) => plug.box === 'car-deck')!] });
    const { rows, progress } = reply();
    expect(rows.filter(({ state }) => state === 'missing')).toEqual([]);
    expect(progress.done).toBeGreaterThan(10);
    expect(progress).toMatchObject({ of: progress.done, more: progress.done });
    expect(row(101).state).toBe('as planned');
  });

  test('a lamp whose UID is known is asked itself where its node does not list it', async () => {
    const { net, roll, reply } = made();
    const ports = [net.ports.find(({ plug }) => plug.box === 'car-deck')!];
    await roll.call({ ports });
    const plan = keepUids(rigOf(net.records), reply().rows);
    if (!plan.ok) throw new Error(plan.why);
    Object.assign(net, { records: recordsAfter(net.records, plan.value.changes) });
    const lost = uidOf('101');
    const table = net.host.table;
    net.host.table = async (port, afresh) => {
      const whole = await table(port, afresh);
      return { ...whole, uids: whole.uids.filter((uid) => uid !== lost) };
    };
    await roll.call({ ports });
    expect(reply(net.records).rows.find(({ number }) => number === 101)).toMatchObject({
      state: 'as planned',
      uid: lost,
    });
  });

  test('a lamp that answers at the second time of asking answers as planned', async () => {
    const { net, roll, row } = made();
    const ports = [net.ports.find(({ plug }) => plug.box === 'car-deck')!];
    const lamp = net.host.lamp;
    let asked = 0;
    const uid = uidOf('101');
    net.host.lamp = async (port, requests, urgent) => {
      const first = requests[0];
      if (first?.uid !== uid || first.pid !== Rdm.DEVICE_INFO || (asked += 1) > 1) return lamp(port, requests, urgent);
      return { ...(await lamp(port, [], urgent)), answers: [{ kind: 'silent' as const }] };
    };
    await roll.call({ ports });
    expect([row(101).state, asked]).toEqual(['as planned', 2]);
  });
});

test('another address, another mode and another port are told as what they are', async () => {
  const { call, rig, row, reply } = made();
  rig.lamp('103').responder.state.address = 200;
  rig.lamp('441').responder.state.personality = 1;
  rig.lamp('105').plug = { box: 'car-deck', port: 2 };
  rig.moved();
  await call();
  expect(row(103).says).toBe('Set to 200 where 47 is planned.');
  expect(row(441).says).toBe('In mode RGBW, 4 slots where Intensity RGBW, 5 slots is planned.');
  expect(row(105).says).toBe('On Car deck node, port 2 where universe 2 is planned.');
  // Those that are now in each other's way
  const collisions = reply().troubles.filter(({ kind }) => kind === 'collision');
  expect(collisions.map(({ says }) => says)).toContain(
    '103 Port spot 3 and 110 Port spot 10 both listen to channel 208 on port 1 of Car deck node.',
  );
});

test('a trouble that is left alone is told no more, until somebody asks for it again', async () => {
  const { call, rig, roll, reply } = made();
  rig.lamp('103').responder.state.address = 200;
  await call();
  const { key } = reply().troubles.find(({ kind }) => kind === 'collision')!;
  roll.leaveAlone(key, true);
  expect(reply().troubles.map((one) => one.key)).not.toContain(key);
  roll.leaveAlone(key, false);
  expect(reply().troubles.map((one) => one.key)).toContain(key);
});

test('a stranger is one, and a type is made of what it tells', async () => {
  const { call, rig, reply, setter, net } = made();
  // The plan loses a lamp that hangs there.
  (net as { records: typeof net.records }).records = {
    ...net.records,
    lamp: net.records.lamp.filter(({ number }) => number !== 231),
  };
  await call();
  const stranger = reply().rows.find(({ state }) => state === 'stranger')!;
  expect(stranger).toMatchObject({ uid: uidOf('231'), lampId: '' });
  expect(stranger.says).toMatch(/at 1 is not in the plan/);
  const type = await setter.type(stranger.uid);
  const theirs = rig.lamp('231').hung.type;
  expect([type.maker, type.name]).toEqual([theirs.maker, theirs.name]);
  const planned = theirs.modes.find(({ name }) => name === 'Standard')!;
  expect(type.modes[0]!.channels.map(({ attribute, offsets }) => [attribute, offsets])).toEqual(
    planned.channels.map(({ attribute, offsets }) => [attribute, offsets]),
  );
  expect(typeFrom(stranger.seen!, [], 'x').modes[0]!.channels).toEqual([]);
});

test('the spare that somebody plugged in is a stranger, with a greeting where it is wanted', async () => {
  const { call, rig } = made();
  Object.assign(rig.lamp('999'), { plug: { box: 'wheelhouse', port: 2 }, order: 99 });
  rig.moved();
  const { rows, troubles } = await call();
  expect(rows.filter(({ state }) => state === 'stranger').map(({ says }) => says)).toEqual([
    'Orrin Petal 4 at 1 is not in the plan.',
  ]);
  expect(troubles.map(({ kind }) => kind)).toEqual(['collision']);
});

test('two with one UID are found and say nothing: that is what is said, and the other is missing', async () => {
  const { call, rig, reply } = made();
  rig.lamp('303').err({ likeUid: uidOf('302') });
  const { rows, sentence } = await call();
  const deaf = rows.find(({ state }) => state === 'no answer')!;
  expect(deaf.says).toMatch(/Two lamps may share this UID/);
  expect(rows.filter(({ state }) => state === 'missing').map(({ number }) => number)).toEqual([302, 303]);
  expect(sentence).toContain('1 found without an answer');
  expect(reply().troubles.filter(({ kind }) => kind === 'cut')).toEqual([]);
});

test('a cut cable is told as one, with the lamp before which to look', async () => {
  const { call, rig } = made();
  rig.err({ box: 'boiler', port: 4 }, { cut: 3 });
  const { troubles, rows } = await call();
  expect(troubles).toMatchObject([{ kind: 'cut', machineId: 'machine-boiler', portNumber: 4 }]);
  expect(troubles[0]!.says).toBe('33 of 36 lamps on port 4 of Boiler node do not answer, all from 604 on.');
  expect(rows.filter(({ state }) => state === 'missing')).toHaveLength(33);
});

test('a cable without a terminator loses answers: all lamps are told, and the cable with them', async () => {
  let at = 0;
  const { call } = made(new HungNet(hungShip(() => ((at += 7) % 20) / 20)));
  const net = new HungNet(hungShip(() => ((at += 7) % 20) / 20));
  const ragged = made(net);
  net.rig.err({ box: 'boiler', port: 2 }, { ragged: 0.2 });
  const { troubles, sentence } = await ragged.call();
  expect(sentence).toMatch(/^346 of 420/);
  expect(troubles).toMatchObject([{ kind: 'ragged', machineId: 'machine-boiler', portNumber: 2 }]);
  // A sound one loses none.
  expect((await call()).troubles).toEqual([]);
});

test('RDM that is off is said, and its lamps are not called missing', async () => {
  const { call, net, row } = made();
  net.ports.find(({ plug }) => plug.box === 'boiler' && plug.port === 2)!.rdm = false;
  const { troubles } = await call();
  expect(troubles).toMatchObject([{ kind: 'off', portNumber: 2 }]);
  expect(row(381)).toMatchObject({ state: 'cannot be asked', says: 'Boiler node, port 2 has its RDM off.' });
});

test('a node that went away holds up no other, and its lamps are not called missing', async () => {
  const { call, net, row } = made();
  net.away.add('127.0.0.32');
  const { sentence } = await call();
  expect(row(301)).toMatchObject({ state: 'cannot be asked' });
  expect(sentence).toMatch(/^244 of 420/);
});

test('what was said before a node went away is no word of now', async () => {
  const { call, net, row, reply } = made();
  await call();
  expect(row(301)).toMatchObject({ state: 'as planned' });
  net.away.add('127.0.0.32');
  expect(row(301)).toMatchObject({ state: 'cannot be asked', wanted: null });
  expect(row(301).says).toBe('Boiler node, port 1 does not answer now; before that: It answers as planned.');
  expect(reply().sentence).toMatch(/^244 of 420/);
});

test('one that answers, and tells nothing of what it has, is not called silent', async () => {
  const { call, rig, row } = made();
  for (const lamp of rig.lamps) if (lamp.hung.tag !== '101') lamp.err({ missing: true });
  const { responder } = rig.lamp('101');
  const handle = responder.handle.bind(responder);
  jest
    .spyOn(responder, 'handle')
    .mockImplementation((request, now) => (request.pid === Rdm.DEVICE_INFO ? handle(request, now) : undefined));
  await call();
  expect(row(101).seen).toMatchObject({ says: 'all', startAddress: 1, maker: '', parameters: [] });
});
