/** What a push would bring: only what would change, and the light that goes or comes with it. */
import { observe, plannedWorld, withPort, withStreams, type World } from '../simulate';
import { forecastPush } from './forecastPush';
import { patchOf, ferry, PRESENT } from './testing/scenes';
import { asReports } from './testing/asReports';

const boiler = 'machine-boiler';
const patch = patchOf(ferry);
const world = plannedWorld(ferry, patch, [], PRESENT);
const brings = (change: (world: World) => World, machineIds: readonly string[] = [boiler]) =>
  forecastPush({ records: ferry, patch, ...asReports(observe(change(world)), ferry) }, machineIds).map(
    ({ name, was, becomes, light, lamps }) => [name, was, becomes, light, lamps > 0],
  );

test('nothing where nodes say that they are set as planned, and nothing of nodes that say nothing', () => {
  expect(brings((one) => one)).toEqual([]);
  expect(brings((one) => ({ ...one, nodes: one.nodes.filter(({ id }) => id !== boiler) }))).toEqual([]);
});

test('a port that is off as planned is not told, however it would merge', () => {
  const spare = world.nodes.flatMap(({ id, ports }) =>
    ports.filter(({ use }) => use === 'off').map(({ number }) => [id, number] as const),
  )[0]!;
  expect(brings((one) => withPort(one, ...spare, { merge: 'ltp' }), [spare[0]])).toEqual([]);
});

test('a port that was turned is told with where it was and will be; another machine’s is not told', () => {
  const turned = (one: World) => withPort(withPort(one, boiler, 2, { wire: 30 }), 'machine-car-deck', 1, { wire: 9 });
  expect(brings(turned)).toEqual([['Port 2 of Boiler node', 'Art-Net 0.1.14', 'Art-Net 0.0.8', 'stays lit', false]]);
});

test('a port that is off gets light', () => {
  expect(brings((one) => withPort(one, boiler, 2, { use: 'off' }))).toEqual([
    ['Port 2 of Boiler node', 'off', 'Art-Net 0.0.8', 'gets light', false],
  ]);
});

test('a port that follows somebody now goes dark where nobody sends what is planned', () => {
  // The desk sends one off, and the port was turned after it by hand.
  const follows = (one: World) =>
    withPort(
      withStreams(one, 'machine-bridge', ({ wire }) =>
        wire.protocol === 'artnet' ? { wire: { ...wire, number: wire.number + 4 } } : {},
      ),
      boiler,
      2,
      { wire: 12 },
    );
  expect(brings(follows)).toEqual([['Port 2 of Boiler node', 'Art-Net 0.0.12', 'Art-Net 0.0.8', 'goes dark', true]]);
});

test('a merge that is otherwise is told, and changes no light here', () => {
  expect(brings((one) => withPort(one, boiler, 2, { merge: 'ltp' }))).toEqual([
    ['Port 2 of Boiler node', 'Art-Net 0.0.8', 'Art-Net 0.0.8', 'stays lit', false],
  ]);
});

test('where what is planned goes to others only, nobody knows what a push would bring', () => {
  const records = {
    ...ferry,
    machine: ferry.machine.map((one) =>
      one.id === 'machine-bridge' && one.sends
        ? {
            ...one,
            sends: {
              ...one.sends,
              lines: one.sends.lines.map((line) => ({
                ...line,
                delivery: 'unicast' as const,
                addresses: ['127.0.0.32'],
              })),
            },
          }
        : one,
    ),
  };
  const quiet = plannedWorld(records, patch, [], PRESENT);
  const off = withPort(quiet, boiler, 2, { use: 'off' });
  const here = { ...off, here: { ...off.here, addresses: ['127.0.0.1'] } };
  const [told] = forecastPush({ records, patch, ...asReports(observe(here), records) }, [boiler]);
  expect(told).toMatchObject({ name: 'Port 2 of Boiler node', light: 'not known', lamps: 0 });
});
