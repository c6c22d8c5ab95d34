/** What if: failures played in time on the demo show, each by what its rules say, and every single one ranked. */
import { nightFerry } from '../../whole/demo';
import { rigOf } from '../../rig/patch';
import { withNode, withPort } from '../simulate';
import { STEP_MS } from './course';
import {
  FAILURE_S,
  WhatIf,
  fromGood,
  fromPlan,
  isDark,
  singleFailures,
  spansOf,
  tryFailures,
  type WhatIfEvent,
  type WhatIfWorld,
} from '.';

const ferry = nightFerry();
const { patch } = rigOf(ferry);
const { world: planned } = fromPlan(ferry, patch);
const made = (world: WhatIfWorld = planned) => new WhatIf(ferry, patch, world);
const event = (kind: WhatIfEvent['kind'], id: string, over: Partial<WhatIfEvent> = {}): WhatIfEvent => ({
  ...{ kind, id, port: 0, at: 2, lasts: 0, amount: 0 },
  ...over,
});

/** A port that is fed in the plan by one sACN sender alone, and by none but multicast. */
const [fed] = planned.nodes.flatMap((node) =>
  node.ports
    .filter(({ use, protocol, wire }) => {
      const senders = planned.senders.filter(({ streams }) =>
        streams.some((one) => one.wire.protocol === protocol && one.wire.number === wire),
      );
      const carriers = planned.nodes.flatMap(({ ports }) =>
        ports.filter((one) => one.use === 'out' && one.protocol === protocol && one.wire === wire),
      );
      return (
        use === 'out' && protocol === 'sacn' && carriers.length === 1 && senders.length === 1 && !senders[0]!.through
      );
    })
    .map((port) => ({
      node,
      port,
      sender: planned.senders.find(({ streams }) =>
        streams.some((one) => one.wire.protocol === port.protocol && one.wire.number === port.wire),
      )!,
    })),
);
const { node, port, sender } = fed!;
const key = `${node.id} ${port.number}`;

/** What leaves that port with a loss rule, in words. */
function course(events: readonly WhatIfEvent[], over: object = {}, seconds = 30, world: WhatIfWorld = planned) {
  const base = { ...world, ...withPort(world, node.id, port.number, over) };
  const { courses } = made(base).play(events, seconds);
  return spansOf(courses.get(key)!.codes).map(({ state, from }) => [state, from] as const);
}
const loss = (kind: string, after = 0, over = 0) => ({ loss: { kind, after, over } });

describe('one port', () => {
  test('nothing happens: it stays as it is', () => expect(course([])).toEqual([['live', 0]]));

  test('its desk freezes: after the time of the standard it does what it is set to', () => {
    const frozen = [event('freeze', sender.id)];
    const [, held] = course(frozen, loss('hold'));
    expect([held![0], held![1] >= 4 && held![1] <= 4.8]).toEqual(['held', true]);
    const states = (kind: string, after = 0, over = 0) =>
      course(frozen, loss(kind, after, over)).map(([state]) => state);
    expect(states('hold-black', 5)).toEqual(['live', 'held', 'dark']);
    expect(states('fade', 0, 6)).toEqual(
      ['live', 'held', 'fades', 'dark'].filter((one) => states('fade', 0, 6).includes(one)),
    );
    expect(states('fade', 0, 6)).toEqual(expect.arrayContaining(['live', 'fades', 'dark']));
    expect(states('full')).toEqual(['live', 'full']);
  });

  test('a desk that stops as the standard wants it is lost at once', () => {
    const [, held] = course([event('stop', sender.id)], loss('hold-black'));
    expect(held).toEqual(['dark', 2]);
  });

  test('power off and on: silent while it starts, then live again', () => {
    const spans = course([event('power', node.id, { lasts: 5 })]);
    expect(spans.map(([state]) => state)).toEqual(['live', 'silent', 'live']);
    expect(spans[2]![1]).toBeGreaterThanOrEqual(2 + 5 + 8);
    expect(spans[2]![1]).toBeLessThanOrEqual(2 + 5 + 8 + 1);
  });

  test('a node that starts again has forgotten what it held', () => {
    const events = [event('freeze', sender.id), event('power', node.id, { at: 10, lasts: 1 })];
    const states = course(events, { ...loss('hold'), start: 'wait' }, 40).map(([state]) => state);
    expect(states).toEqual(['live', 'held', 'silent']);
  });

  test('a desk takes longer to start than a node', () => {
    const spans = course([event('power', sender.id, { lasts: 5 })], loss('hold'), 60);
    expect(spans.map(([state]) => state)).toEqual(['live', 'held', 'live']);
    expect(spans[2]![1]).toBeGreaterThanOrEqual(2 + 5 + 30);
  });

  test('multicast that does not come, a second desk of the same priority and of a lower one, a sync that is gone', () => {
    expect(course([event('multicast', node.id)], loss('hold')).map(([state]) => state)).toEqual(['live', 'held']);
    const priority = sender.streams.find(({ wire }) => wire.number === port.wire)!.priority;
    const merging = { ...planned, ...withNode(planned, node.id, () => ({ model: { sources: 4 } })) };
    const second = (amount: number) =>
      course([event('second desk', sender.id, { amount })], { merge: 'htp' }, 30, merging).map(([state]) => state);
    expect([second(priority), second(priority - 10), second(priority + 10)]).toEqual([
      ['live', 'from others'],
      ['live'],
      ['live', 'from others'],
    ]);
    expect(course([event('sync', sender.id)]).map(([state]) => state)).toEqual(['live', 'held']);
  });

  test('a link that loses little is lived with; one that loses nearly all is not', () => {
    const lossy = (amount: number) =>
      course([event('lossy', node.id, { amount })], loss('hold-black'), 60).some(([state]) => state === 'dark');
    expect([lossy(10), lossy(97)]).toEqual([false, true]);
  });

  test('a backup of lower priority takes over when the desk freezes', () => {
    const wire = { protocol: port.protocol, number: port.wire };
    const stream = { ...sender.streams.find(({ wire: its }) => its.number === port.wire)!, wire, priority: 50 };
    const backed = {
      ...planned,
      senders: [...planned.senders, { ...sender, id: 'backup', cid: 'backup', streams: [stream] }],
    };
    const states = course([event('freeze', sender.id)], loss('hold-black'), 30, backed).map(([state]) => state);
    expect(states).toEqual(['live', 'from others']);
  });
});

describe('the rig', () => {
  test('a DMX cable: its lamps alone go without signal, and are named by place', () => {
    const report = made().run([event('port cable', node.id, { port: port.number })], 20, []);
    const gone = report.effects.flatMap(({ lampIds }) => lampIds);
    const on = made()
      .lamps.filter((one) => made().portsOf(one).includes(key))
      .map(({ lamp }) => lamp.id);
    expect(new Set(gone)).toEqual(new Set(on));
    expect(report.effects[0]!.says).toMatch(/^\d+ lamps? without signal from 2 s\.$/);
    const last = report.samples[report.samples.length - 1]!;
    expect(last.dark).toBe(on.length);
    expect(report.samples[0]!.dark).toBe(0);
  });

  test('power lost to a place: its lamps are dark as long as that lasts, and all is back at the end', () => {
    const place = ferry.place[1]!;
    const report = made().run([event('place power', place.id, { lasts: 4 })], 60, []);
    const own = report.lamps.filter(({ id }) => patch.lamp(id)!.lamp.placeId === place.id);
    expect(own.length).toBeGreaterThan(10);
    const from = Math.ceil(2000 / STEP_MS);
    for (const { codes } of own) {
      expect(isDark(codes[0])).toBe(false);
      expect([...codes.slice(from, from + 10)].every((one) => isDark(one))).toBe(true);
      expect(codes[codes.length - 1]).toBe('L');
    }
    const others = report.lamps.filter(({ id }) => patch.lamp(id)!.lamp.placeId !== place.id);
    expect(others.some(({ codes }) => /^L+$/.test(codes))).toBe(true);
  });

  test('of two ports that carry a universe: only perhaps dark, until it is known on which they hang', () => {
    const two = made().lamps.find((one) => made().portsOf(one).length === 2)!;
    const [first, other] = made().portsOf(two) as [string, string];
    const [id, number] = [first.slice(0, first.lastIndexOf(' ')), Number(first.slice(first.lastIndexOf(' ') + 1))];
    const cut = [event('port cable', id, { port: number })];
    const last = (hangsOn: ReadonlyMap<string, string>) =>
      new WhatIf(ferry, patch, planned, hangsOn)
        .run(cut, 10, [])
        .lamps.find((one) => one.id === two.lamp.id)!
        .codes.slice(-1);
    expect([last(new Map()), last(new Map([[two.lamp.id, first]])), last(new Map([[two.lamp.id, other]]))]).toEqual([
      'P',
      'S',
      'L',
    ]);
  });

  test('kept as good: who was missing then is missing, and costs nothing more', () => {
    const good = {
      id: 'g',
      rev: 1,
      at: '2026-11-26T18:00:00Z',
      by: 'Mira',
      states: [{ about: `machine ${node.id}`, name: node.name, says: 'missing' }],
    };
    const { world, assumes } = fromGood(ferry, patch, good);
    expect(assumes[0]).toContain('2026-11-26 18:00');
    const report = new WhatIf(ferry, patch, world).run([event('power', node.id)], 10, []);
    expect(report.effects).toEqual([]);
  });
});

describe('every single failure', () => {
  const whatIf = made();
  const run = (pairs: boolean) => {
    const trying = tryFailures(whatIf, pairs);
    for (;;) {
      const next = trying.next();
      if (next.done) return next.value;
      expect(next.value.done).toBeLessThanOrEqual(next.value.of);
    }
  };
  const rows = run(false);

  test('the worst first; what costs nothing is left out', () => {
    expect(rows.length).toBeGreaterThan(10);
    expect(rows.map(({ darkSeconds }) => darkSeconds)).toEqual(
      rows.map(({ darkSeconds }) => darkSeconds).sort((a, b) => b - a),
    );
    for (const row of rows) expect(row.dark + row.perhaps + row.held + row.changed).toBeGreaterThan(0);
  });

  test('each costs what a whole run of it costs: nothing that it touches is left out', () => {
    const failures = singleFailures(ferry, whatIf);
    for (const failure of failures.filter((_, i) => i % 7 === 0)) {
      const report = whatIf.run([failure.event], FAILURE_S, []);
      const darkSteps = report.lamps.reduce(
        (sum, { codes }) => sum + [...codes].filter((one) => isDark(one)).length,
        0,
      );
      const row = rows.find((one) => one.key === failure.key);
      const told = row ? row.dark + row.perhaps + row.held + row.changed : 0;
      const touched = report.lamps.filter(({ codes }) => !/^L*$/.test(codes)).length;
      const steps = Math.round((darkSteps * STEP_MS) / 1000);
      expect([failure.what, row?.darkSeconds ?? 0, told]).toEqual([failure.what, steps, touched]);
    }
  });

  test('with the input of a desk on a DMX cable fall the ports that it feeds elsewhere', () => {
    const desk = planned.senders.find(({ through }) => through)!;
    const { protocol, number: wire } = desk.streams[0]!.wire;
    const base = { ...planned, ...withPort(planned, node.id, port.number, { protocol, wire }) };
    const whole = made(base);
    const power = event('power', desk.through!.nodeId, { at: 0 });
    const lost = whole
      .run([power], FAILURE_S, [])
      .lamps.filter(({ id, codes }) => !/^L*$/.test(codes) && whole.portsOf(patch.lamp(id)!).includes(key));
    expect(lost.length).toBeGreaterThan(0);
    const trying = tryFailures(whole, false);
    let next = trying.next();
    while (!next.done) next = trying.next();
    const row = next.value.find((one) => one.key === `power ${power.id} 0`)!;
    const all = whole.run([power], FAILURE_S, []).lamps.filter(({ codes }) => !/^L*$/.test(codes));
    expect(row.dark + row.perhaps + row.held + row.changed).toBe(all.length);
  });

  test('of two together only those are told that cost more than apart', () => {
    const pairs = run(true).filter(({ kind }) => kind === 'pair');
    for (const { darkSeconds, machineIds } of pairs) {
      const apart = rows.filter(({ machineIds: [id], kind }) => kind === 'power' && machineIds.includes(id!));
      expect(darkSeconds).toBeGreaterThan(apart.reduce((sum, one) => sum + one.darkSeconds, 0) / 2);
    }
  });
});
