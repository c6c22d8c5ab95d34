/** Lamps as they hang: what light the slots of their cable make, and what each fault does to light and answers. */
import { hungShip } from '../../whole/demo';
import { decodeDeviceInfo, Rdm, type RdmPacket } from '../../protocol/rdm';
import type { HungLamp, HungRig } from '.';

const request = (uid: string): RdmPacket => ({
  ...{ destination: uid, source: '7ff0:00000001', transaction: 1, portOrType: 1, waiting: 0, subDevice: 0 },
  ...{ commandClass: Rdm.GET_COMMAND, pid: Rdm.DEVICE_INFO, data: new Uint8Array(0) },
});
const levels = (...set: readonly (readonly [slot: number, level: number])[]): Uint8Array => {
  const all = new Uint8Array(512);
  for (const [slot, level] of set) all[slot - 1] = level;
  return all;
};
const brightness = (lamp: HungLamp, given: Uint8Array | undefined, now = 0): number =>
  Math.max(...lamp.shows(given, now).colour);
const answersOn = (rig: HungRig, lamp: HungLamp): boolean =>
  rig.ask(lamp.plug!, request(lamp.uid), 0).kind === 'answer';

test('a lamp lights by the slots that it is set to and by nothing else', () => {
  const lantern = hungShip().lamp('1');
  const { address } = lantern.responder.state;
  expect(brightness(lantern, levels([address!, 255]))).toBe(1);
  expect(brightness(lantern, levels([address! + 1, 255]))).toBe(0);
  lantern.responder.state.address = 200;
  expect(brightness(lantern, levels([200, 128]))).toBeCloseTo(128 / 255, 5);
  expect(brightness(lantern, undefined)).toBe(0);
});

test('in another mode it takes the same slots for something else', () => {
  const lantern = hungShip().lamp('1');
  const at = lantern.responder.state.address!;
  lantern.responder.state.personality = 2;
  // Sixteen bits now: the coarse one alone is a little less than full.
  expect(brightness(lantern, levels([at, 255]))).toBeCloseTo(0xff00 / 0xffff, 5);
});

test('a head built with coarse pan and tilt says so in its slots, and takes what follows two too early', () => {
  const rig = hungShip();
  const spot = rig.lamp('101');
  const slots = () => {
    const heard = rig.ask(spot.plug!, request(spot.uid), 0);
    const info = heard.kind === 'answer' ? decodeDeviceInfo(heard.packet.data) : undefined;
    return info?.ok ? info.value.footprint : undefined;
  };
  const before = slots()!;
  const panned = levels([spot.responder.state.address! + 1, 255]);
  const pan = spot.shows(panned, 0).pan;
  spot.err({ coarse: true });
  expect(slots()).toBe(before - 2);
  expect(spot.shows(panned, 0).pan).not.toBeCloseTo(pan, 3);
});

test('identifying blinks, whatever the slots say', () => {
  const lantern = hungShip().lamp('1');
  lantern.responder.identifying = true;
  expect([0, 500, 1000].map((now) => brightness(lantern, undefined, now))).toEqual([1, 0, 1]);
});

test('deaf, dead and missing are three things', () => {
  const rig = hungShip();
  const lamp = rig.lamp('301');
  const lit = () =>
    brightness(
      lamp,
      levels(
        [lamp.responder.state.address!, 255],
        [lamp.responder.state.address! + 1, 255],
        [lamp.responder.state.address! + 6, 255],
      ),
    );
  expect([answersOn(rig, lamp), lit() > 0]).toEqual([true, true]);
  lamp.err({ deaf: true });
  expect([answersOn(rig, lamp), lit() > 0, rig.discover(lamp.plug!).includes(lamp.uid)]).toEqual([false, true, false]);
  lamp.err({ deaf: false, dead: true });
  expect([answersOn(rig, lamp), lit() > 0]).toEqual([true, false]);
  lamp.err({ dead: false, missing: true });
  expect([answersOn(rig, lamp), lit() > 0]).toEqual([false, false]);
});

test('behind a cut cable all are dark and deaf', () => {
  const rig = hungShip();
  const plug = { box: 'boiler', port: 4 };
  expect(rig.discover(plug)).toHaveLength(36);
  rig.err(plug, { cut: 3 });
  expect(rig.discover(plug)).toHaveLength(3);
  const full = new Uint8Array(512).fill(255);
  const lit = rig.shows(({ box, port }) => (box === 'boiler' && port === 4 ? full : undefined), 0);
  expect(lit.filter(({ colour }) => Math.max(...colour) > 0)).toHaveLength(3);
});

test('two with one UID are found once and spoil each other’s answers', () => {
  const rig = hungShip();
  const [one, other] = [rig.lamp('302'), rig.lamp('303')];
  const before = rig.discover(one.plug!).length;
  other.err({ likeUid: one.hung.uid });
  expect(rig.discover(one.plug!)).toHaveLength(before - 1);
  expect(rig.ask(one.plug!, request(one.uid), 0).kind).toBe('spoiled');
});

test('a ragged cable loses its part of the answers', () => {
  let at = 0;
  const rig = hungShip(() => ((at += 1) % 5) / 5);
  const lamp = rig.lamp('381');
  rig.err(lamp.plug!, { ragged: 0.2 });
  const kinds = Array.from({ length: 50 }, () => rig.ask(lamp.plug!, request(lamp.uid), 0).kind);
  expect(kinds.filter((kind) => kind === 'spoiled')).toHaveLength(10);
});

test('what is reset is as it was hung', () => {
  const rig = hungShip();
  const lamp = rig.lamp('101');
  const first = structuredClone(lamp.responder.state);
  lamp.err({ coarse: true, refuses: true, likeUid: rig.lamp('102').hung.uid });
  lamp.responder.state.address = 9;
  lamp.plug = null;
  rig.err({ box: 'car-deck', port: 1 }, { cut: 0 });
  rig.reset();
  expect([lamp.responder.state, lamp.plug, lamp.uid]).toEqual([first, { box: 'car-deck', port: 1 }, lamp.hung.uid]);
  expect(rig.wrongLines()).toEqual([]);
  expect(answersOn(rig, lamp)).toBe(true);
});

test('every lamp of the ship hangs on some cable but the spare, each UID is its own, and their order says nothing', () => {
  const { lamps } = hungShip();
  expect(lamps).toHaveLength(421);
  expect(lamps.filter(({ plug }) => plug === null).map(({ hung }) => hung.tag)).toEqual(['999']);
  expect(new Set(lamps.map(({ uid }) => uid)).size).toBe(421);
  const uids = lamps.slice(0, 12).map(({ uid }) => uid);
  expect(uids).not.toEqual([...uids].sort());
});
