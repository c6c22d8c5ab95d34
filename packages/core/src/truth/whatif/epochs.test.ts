/** The order of what happens, what each event changes while it lasts, and what would take a failure away. */
import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { linesWith, sendersOf, universesOf } from '../../network/flow';
import { rigOf } from '../../rig/patch';
import type { ShowRecords } from '../../show/records';
import { epochsOf } from './epochs';
import {
  applied,
  BOOT_S,
  costText,
  FAILURE_S,
  fromPlan,
  mendsOf,
  SECOND_DESK,
  singleFailures,
  tryFailures,
  WhatIf,
  type Happens,
  type WhatIfEvent,
  type WhatIfWorld,
} from '.';

const ferry = nightFerry();
const { patch } = rigOf(ferry);
const { world } = fromPlan(ferry, patch);
const event = (kind: Happens, id: string, over: Partial<WhatIfEvent> = {}): WhatIfEvent => ({
  ...{ kind, id, port: 0, at: 10, lasts: 20, amount: 0 },
  ...over,
});
const desk = sendersOf(ferry.machine).find(({ machine }) => machine.kind === 'console')!;
const [node] = world.nodes as [WhatIfWorld['nodes'][number]];
const place = ferry.machine.find(({ id }) => id === node.id)!.placeId!;

describe('stretches of time', () => {
  const times = (...events: WhatIfEvent[]) => epochsOf(world, events, ferry).map(({ from }) => from);
  const at = (time: number, ...events: WhatIfEvent[]): WhatIfWorld =>
    epochsOf(world, events, ferry)
      .filter(({ from }) => from <= time)
      .map((one) => one.world)
      .pop()!;
  const powered = (one: WhatIfWorld) => one.nodes.find(({ id }) => id === node.id)!.powered;
  const plugged = (one: WhatIfWorld) => one.nodes.find(({ id }) => id === node.id)!.plugged;
  const sends = (one: WhatIfWorld) => one.senders.find(({ id }) => id === desk.id)!.on;

  test('begin with a time when all was well, and rise; what lasts to the end has no end', () => {
    expect(times()).toEqual([-Infinity, 0]);
    expect(times(event('cable', node.id), event('freeze', desk.id, { at: 3, lasts: 0 }))).toEqual([
      -Infinity,
      0,
      3,
      10,
      30,
    ]);
    expect(times(event('power', node.id))).toEqual([-Infinity, 0, 10, 30, 30 + BOOT_S.node, 30 + BOOT_S.sender]);
  });

  test('an event holds from its begin up to its end, and not at it', () => {
    const pulled = event('cable', node.id);
    expect([9, 10, 29, 30].map((time) => plugged(at(time, pulled)))).toEqual([true, false, false, true]);
  });

  test('with power back a node starts in its time, a desk in its own', () => {
    const dark = event('power', node.id);
    expect([10, 30, 30 + BOOT_S.node - 1, 30 + BOOT_S.node].map((time) => powered(at(time, dark)))).toEqual([
      false,
      false,
      false,
      true,
    ]);
    const off = event('power', desk.id);
    expect([10, 30 + BOOT_S.node, 30 + BOOT_S.sender].map((time) => sends(at(time, off)))).toEqual([
      false,
      false,
      true,
    ]);
  });

  test('lamps of a place shine as soon as it has power, though its node still starts', () => {
    const dark = event('place power', place);
    expect([10, 29, 30].map((time) => at(time, dark).darkPlaces.has(place))).toEqual([true, true, false]);
    expect([10, 30, 30 + BOOT_S.node].map((time) => powered(at(time, dark)))).toEqual([false, false, true]);
  });

  test('two at once both hold, whatever their order in the list', () => {
    const both = [event('freeze', desk.id, { at: 12, lasts: 5 }), event('cable', node.id)];
    for (const events of [both, [...both].reverse()]) {
      const now = at(13, ...events);
      expect([sends(now), plugged(now)]).toEqual([false, false]);
      expect([sends(at(20, ...events)), plugged(at(20, ...events))]).toEqual([true, false]);
    }
  });

  test('whoever is to lose its synchronisation had one before', () => {
    const all = epochsOf(world, [event('sync', desk.id)], ferry);
    const waits = (one: WhatIfWorld) =>
      one.senders.find(({ id }) => id === desk.id)!.streams.every(({ syncAddress }) => syncAddress !== 0);
    expect(all.map((one) => [waits(one.world), one.world.unsynced.has(desk.id)])).toEqual([
      [true, false],
      [true, false],
      [true, true],
      [true, false],
    ]);
    expect(world.senders.some(({ streams }) => streams.some(({ syncAddress }) => syncAddress !== 0))).toBe(false);
  });
});

describe('what an event changes', () => {
  const after = (kind: Happens, id: string, over: Partial<WhatIfEvent> = {}) =>
    applied(world, event(kind, id, over), ferry);
  const nodeIn = (one: WhatIfWorld) => one.nodes.find(({ id }) => id === node.id)!;
  const deskIn = (one: WhatIfWorld) => one.senders.find(({ id }) => id === desk.id)!;

  test('a cable, a power, a DMX cable, one that freezes or stops: that one alone', () => {
    expect([nodeIn(after('cable', node.id)).plugged, deskIn(after('cable', desk.id)).on]).toEqual([false, false]);
    expect([nodeIn(after('power', node.id)).powered, deskIn(after('power', desk.id)).on]).toEqual([false, false]);
    const cut = nodeIn(after('port cable', node.id, { port: 2 })).ports;
    expect(cut.filter(({ cable }) => !cable).map(({ number }) => number)).toEqual([2]);
    expect([deskIn(after('freeze', desk.id)).on, deskIn(after('stop', desk.id)).on]).toEqual([false, false]);
    expect(nodeIn(after('freeze', desk.id))).toEqual(node);
  });

  test('multicast that does not come: to one node, or to all of a place', () => {
    const deaf = (one: WhatIfWorld) => one.nodes.filter(({ multicast }) => !multicast).map(({ id }) => id);
    expect(deaf(after('multicast', node.id))).toEqual([node.id]);
    const there = ferry.machine.filter(({ placeId }) => placeId === place).map(({ id }) => id);
    expect(deaf(after('multicast', place))).toEqual(world.nodes.map(({ id }) => id).filter((id) => there.includes(id)));
  });

  test('a lossy link, a lost synchronisation, a second desk', () => {
    expect(after('lossy', node.id, { amount: 25 }).lossy.get(node.id)).toBe(0.25);
    expect(after('sync', desk.id).unsynced.has(desk.id)).toBe(true);
    const two = after('second desk', desk.id, { amount: 120 });
    const second = two.senders.find(({ id }) => id === SECOND_DESK)!;
    const first = deskIn(world);
    expect(second.streams.map(({ wire }) => wire)).toEqual(
      first.streams.filter(({ on }) => on).map(({ wire }) => wire),
    );
    expect(second.streams.every(({ priority }) => priority === 120)).toBe(true);
    expect(after('second desk', 'nobody')).toEqual(world);
  });
});

describe('what would take a failure away', () => {
  const whatIf = new WhatIf(ferry, patch, world);
  const failure = (kind: Happens, id: string) =>
    singleFailures(ferry, whatIf).find(({ event: one }) => one.kind === kind && one.id === id)!;
  const says = (kind: Happens, id: string, its = whatIf) => mendsOf(failure(kind, id), its).map((one) => one.says);

  test('by what it is: another cable, another supply, shorter chains', () => {
    const name = ferry.machine.find(({ id }) => id === node.id)!.name;
    expect(says('cable', node.id)).toContain(
      `A second interface of ${name} on a cable of its own, if its model has one.`,
    );
    expect(says('power', node.id)).toContain(
      `A second node on the same universes, or a supply for ${name} that lasts.`,
    );
    expect(says('port cable', node.id)).toEqual([
      'Shorter chains, or half of the lamps on another port: then half of them stay.',
    ]);
  });

  test('a desk without another of its kind is told so', () => {
    const alone: ShowRecords = {
      ...ferry,
      machine: ferry.machine.filter(({ kind, id }) => kind !== 'console' || id === desk.id),
    };
    const its = new WhatIf(alone, patch, fromPlan(alone, patch).world);
    const found = singleFailures(alone, its).find(({ event: one }) => one.kind === 'freeze' && one.id === desk.id)!;
    expect(mendsOf(found, its)).toContainEqual({
      says: `A second desk like ${desk.name} would take over. The show has none.`,
      plan: null,
    });
  });

  test('another desk sends the same below it: after that nothing is missing, and the way is told', () => {
    const other = {
      ...desk.machine,
      id: 'other',
      name: 'Other desk',
      interfaces: [],
      sends: { ...desk.machine.sends!, lines: [] },
    };
    const records: ShowRecords = { ...ferry, machine: [...ferry.machine, other] };
    const its = new WhatIf(records, patch, fromPlan(records, patch).world);
    const found = singleFailures(records, its).find(({ event: one }) => one.kind === 'freeze' && one.id === desk.id)!;
    const [mend] = mendsOf(found, its).filter(({ plan }) => plan?.changes.some(({ id }) => id === 'other'));
    const after = recordsAfter(records, mend!.plan!.changes);
    const byNumber = new Map(ferry.universe.map((one) => [one.number, one]));
    const sacn = universesOf(desk).filter((number) => byNumber.get(number)?.protocol === 'sacn');
    const backup = sendersOf(after.machine).find(({ id }) => id === 'other')!;
    expect([...universesOf(backup)].sort((a, b) => a - b)).toEqual([...sacn].sort((a, b) => a - b));
    for (const number of sacn)
      expect(linesWith(backup, number)[0]!.priority).toBe(linesWith(desk, number)[0]!.priority - 10);
    expect(mend!.plan!.lines).toEqual([
      { subject: 'Other desk', before: '0 universes', after: `${sacn.length} universes` },
    ]);
  });
});

test('what a failure costs, in words: only what is so', () => {
  const none = {
    key: '',
    what: '',
    kind: '',
    machineIds: [],
    dark: 0,
    darkSeconds: 0,
    perhaps: 0,
    held: 0,
    changed: 0,
  };
  expect(costText(none)).toBe('');
  expect(costText({ ...none, dark: 2, darkSeconds: 50, perhaps: 3, held: 1, changed: 4 })).toBe(
    `2 lamps dark, 25 s of ${FAILURE_S} each; 3 perhaps dark; 1 held; 4 from others`,
  );
});

test('failures come in the order of what they cost: lamp-seconds first, then lamps', () => {
  const run = tryFailures(new WhatIf(ferry, patch, world), false);
  let step = run.next();
  while (!step.done) step = run.next();
  const rows = step.value;
  const cost = rows.map(({ darkSeconds, dark, perhaps, held, changed }) => [darkSeconds, dark, perhaps, held, changed]);
  for (let i = 1; i < cost.length; i += 1) {
    const at = cost[i]!.findIndex((value, k) => value !== cost[i - 1]![k]);
    if (at >= 0) expect(cost[i - 1]![at]).toBeGreaterThan(cost[i]![at]!);
  }
  expect(rows.every(({ dark, perhaps, held, changed }) => dark + perhaps + held + changed > 0)).toBe(true);
});
