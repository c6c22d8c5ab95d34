/** The world as the plan has it, in which all is well. */
import { nightFerry } from '../../whole/demo';
import { rigOf } from '../../rig/patch';
import { isOutlet, observe, plainStream, plannedWorld, type WorldSender } from '.';

const own: WorldSender = {
  ...{ id: 'own', name: 'Taxiarch', address: '127.0.0.1', cid: 'own', on: true, through: null },
  streams: [plainStream({ protocol: 'sacn', number: 1 })],
};

describe('the world of the plan', () => {
  const ferry = nightFerry();
  const { patch } = rigOf(ferry);
  const lamp101 = ferry.lamp.find(({ number }) => number === 101)!;
  const planned = plannedWorld(ferry, patch, [lamp101.id, 'gone']);

  test('all is well in it: every port that carries something passes it on, and the lamp lights as it should', () => {
    const { ports, answers: seen } = observe(planned);
    expect([...seen.values()].filter(({ about, answer }) => about.kind === 'lamp' && answer !== 'yes')).toEqual([]);
    const fed = [...ports].filter(([, { levels: out }]) => out !== null);
    expect(fed.length).toBeGreaterThan(20);
  });

  test('machines that take universes out are its nodes; a visualiser and what has no ports are none', () => {
    expect(planned.nodes.map(({ id }) => id)).toEqual(ferry.machine.filter(isOutlet).map(({ id }) => id));
    expect(ferry.machine.filter(isOutlet).some(({ kind }) => kind === 'visualiser' || kind === 'switch')).toBe(false);
    const driver = ferry.machine.find(({ controller }) => controller !== null)!;
    expect(planned.nodes.find(({ id }) => id === driver.id)!.ports).toHaveLength(
      driver.ports.length + driver.controller!.universes,
    );
  });

  test('only lamps that are asked for and there are in it, with the ports that carry them and what they need', () => {
    expect(planned.lamps).toHaveLength(1);
    const [one] = planned.lamps;
    expect(one).toMatchObject({ universe: lamp101.universe, patched: lamp101.channel, set: lamp101.channel });
    expect(one!.footprint).toBe(patch.lamp(lamp101.id)!.footprint);
    expect(one!.ports.length).toBeGreaterThan(0);
    const stream = planned.senders
      .flatMap(({ streams }) => streams)
      .find(({ universe }) => universe === lamp101.universe)!;
    expect(stream.needs).toBeGreaterThanOrEqual(lamp101.channel);
  });

  test('the Purser’s desk comes in by the node that it is plugged into; where nobody polls, nobody tells', () => {
    const through = planned.senders.filter((one) => one.through !== null);
    expect(through).toHaveLength(1);
    expect(through[0]!.streams.length).toBeGreaterThan(0);
    const unpolled = plannedWorld(ferry, patch, [], {
      ...{ here: { addresses: ['127.0.0.1'], lists: null }, polled: false },
      own: [own],
    });
    expect(unpolled.nodes.every(({ tells }) => !tells)).toBe(true);
    expect([unpolled.senders[unpolled.senders.length - 1]!.id, unpolled.here.addresses]).toEqual([
      'own',
      ['127.0.0.1'],
    ]);
  });

  test('how a line is sent: as is usual, to certain addresses, or otherwise', () => {
    const [desk] = ferry.machine.filter(({ sends }) => sends !== null);
    const sent = (over: object) => {
      const machine = {
        ...desk!,
        sends: { ...desk!.sends!, lines: desk!.sends!.lines.map((line) => ({ ...line, ...over })) },
      };
      const all = ferry.machine.map((one) => (one.id === machine.id ? machine : one));
      return plannedWorld({ ...ferry, machine: all }, patch, []).senders.find(({ id }) => id === machine.id)!
        .streams[0]!;
    };
    expect(sent({ delivery: 'unicast', addresses: ['10.0.0.9'] }).travels).toEqual({ to: ['10.0.0.9'] });
    expect(sent({ delivery: 'broadcast' }).travels).toBe('broadcast');
    expect(typeof sent({ delivery: 'usual' }).travels).toBe('string');
    expect(sent({ priority: 77 }).priority).toBe(77);
  });
});
