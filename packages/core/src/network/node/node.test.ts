import { ArtNet, type PollReplyPort } from '../../protocol/artnet';
import { heardMachines, matchMachines, shortNameOf, adoptDrift, driftWords, driftKey } from '.';
import { recordsAfter } from '../../show/edit';
import { type Machine } from '../../show/records';
import { ferry, sacnOut, carDeck, nodeOf, heardOf, entryOf, sent } from './testing/nodes';

test('pages are joined in their order, ports counted through', () => {
  const node = nodeOf(new Map([...carDeck()].reverse()));
  expect(node.ports.map(({ number, page, index, portAddress }) => [number, page, index, portAddress])).toEqual([
    [1, 1, 0, 2],
    [2, 1, 1, 3],
    [3, 1, 2, 4],
    [4, 1, 3, 5],
    [5, 2, 0, 7],
    [6, 2, 1, 8],
  ]);
  expect(node).toMatchObject({ firmware: '1.9', failSafe: 'hold', directionSwitch: true, rdmSwitch: true });
});

describe('matching', () => {
  test('as planned is matched, by hardware address', () =>
    expect(entryOf(nodeOf(carDeck()))).toMatchObject({
      name: 'Car deck node',
      state: 'matched',
      by: 'hardware address',
      drift: [],
    }));

  test('a known box at another address is the same box, drifted', () => {
    const entry = entryOf(nodeOf(carDeck(), { address: '127.0.0.77' }));
    expect(entry).toMatchObject({ name: 'Car deck node', state: 'drifted' });
    expect(entry.drift).toEqual([{ kind: 'address', planned: '127.0.0.33', seen: '127.0.0.77', way: 'ip' }]);
  });

  test('another box at a planned address is a stranger when the plan knows the hardware', () => {
    const other = nodeOf(carDeck(), { mac: '02:00:00:00:00:99' });
    const entries = matchMachines(ferry, [heardOf(other)]);
    expect(entries.find(({ name }) => name === 'Car deck node')!.by).toBe('name and address');
    const renamed = matchMachines(ferry, [heardOf({ ...other, shortName: 'Odd' })]);
    expect(renamed.find(({ state }) => state === 'stranger')).toMatchObject({ key: '127.0.0.33' });
    expect(renamed.find(({ name }) => name === 'Car deck node')).toMatchObject({ state: 'missing' });
  });

  test('without a hardware address the address decides, then a name that one only has', () => {
    const bare = (one: Machine): Machine => ({
      ...one,
      interfaces: one.interfaces.map((face) => ({ ...face, mac: '' })),
    });
    const records = { ...ferry, machine: ferry.machine.map(bare) };
    expect(entryOf(nodeOf(carDeck(), { shortName: 'Odd' }), records)).toMatchObject({
      name: 'Car deck node',
      by: 'address',
    });
    expect(entryOf(nodeOf(carDeck(), { address: '127.0.0.77' }), records)).toMatchObject({ by: 'name' });
    const twins = [
      nodeOf(carDeck(), { address: '127.0.0.77', mac: 'a' }),
      nodeOf(carDeck(), { address: '127.0.0.78', mac: 'b' }),
    ];
    expect(matchMachines(records, twins.map(heardOf)).filter(({ state }) => state === 'stranger')).toHaveLength(2);
  });

  test('who is gone is missing; who cannot speak is unseen; who only sends is heard by it', () => {
    expect(entryOf(nodeOf(carDeck(), { gone: true }))).toMatchObject({ state: 'missing' });
    expect(matchMachines(ferry, []).find(({ name }) => name === 'Purser’s desk')).toMatchObject({ state: 'unseen' });
    const stream = { own: false, lost: false, address: '127.0.0.23', name: 'Porthole', firstSeen: 5, lastSeen: 9 };
    const [heard] = heardMachines({ nodes: [], discovered: [], universes: [{ key: 13, streams: [stream] } as never] });
    expect(heard).toMatchObject({ name: 'Porthole', sends: [13], firstSeen: 5 });
    expect(matchMachines(ferry, [heard!]).find(({ name }) => name === 'Porthole')).toMatchObject({ state: 'matched' });
  });

  test('a name too long for the packet is matched by as much of it as fits', () => {
    expect(shortNameOf('Funnel cord driver')).toBe('Funnel cord drive');
    expect(new TextEncoder().encode(shortNameOf('Kühlraum-Möwe-Süd-1')).length).toBeLessThanOrEqual(17);
  });
});

describe('drift', () => {
  const first = (change: Partial<PollReplyPort>) =>
    carDeck((page, i) => (i === 0 ? { ports: [{ ...page.ports[0]!, ...change }, ...page.ports.slice(1)] } : {}));

  test.each([
    ['1 universe', first({ swOut: 9 }), 'sACN 2', 'sACN 9', 'address'],
    ['1 merge', first({ goodOutputA: 0x83 }), 'highest wins', 'latest wins', 'address'],
    ['1 protocol', first({ goodOutputA: 0x80 }), 'sACN', 'Art-Net', 'address'],
    ['1 rdm', first({ goodOutputB: 0x80 }), 'on', 'off', 'address'],
    ['1 direction', first({ type: 0 }), 'out', 'off', 'panel'],
    ['name', carDeck(() => ({ portName: 'Box' })), 'Car deck node', 'Box', 'address'],
    ['firmware', carDeck(() => ({ version: 0x0108 })), '1.9', '1.8', 'panel'],
    ['signal lost', carDeck(() => ({ status3: 0xe8 })), 'holds for ever', 'stored look', 'address'],
  ])('%s', (field, pages, planned, seen, way) => {
    const { drift, state } = entryOf(nodeOf(pages));
    expect(state).toBe('drifted');
    const words = driftWords(drift[0]!);
    expect(drift.map((one) => [driftKey(one), one.way])).toEqual([[field, way]]);
    expect([words.planned, words.seen]).toEqual([planned, seen]);
    expect(words.panel).toMatch(/\.$/);
  });

  test('an input that is off can be told so by a packet, and the mask by another', () => {
    const input = first({ type: ArtNet.PORT_CAN_INPUT, goodInput: ArtNet.INPUT_TO_SACN, swIn: 2 });
    expect(entryOf(nodeOf(input)).drift[0]).toMatchObject({ kind: 'direction', port: 1, seen: 'in', way: 'address' });
    expect(entryOf(nodeOf(carDeck(), { mask: '255.255.0.0' })).drift).toEqual([
      { kind: 'mask', planned: '255.0.0.0', seen: '255.255.0.0', way: 'ip' },
    ]);
  });

  test('DHCP where an address was planned by hand, and the other way round', () => {
    const node = nodeOf(carDeck(), { dhcp: true });
    const entry = entryOf(node);
    expect(entry.drift).toEqual([{ kind: 'dhcp', planned: false, seen: true, way: 'ip' }]);
    const [packet] = sent(entry.plan!, node, entry.drift);
    expect(packet).toMatchObject({ kind: 'ipProg', command: 0x86, ip: '127.0.0.33' });

    const plan = adoptDrift(ferry, entry.plan!, entry.heard!, entry.drift);
    const served = recordsAfter(ferry, plan.changes);
    expect(entryOf(node, served).state).toBe('matched');
    // From now on any address will do, and a fixed one is what differs.
    expect(entryOf({ ...node, address: '127.0.0.77' }, served).state).toBe('matched');
    const fixed = nodeOf(carDeck());
    const back = entryOf(fixed, served);
    expect(back.drift.map(driftKey)).toEqual(['dhcp']);
    const [other] = sent(back.plan!, fixed, back.drift);
    expect(other).toMatchObject({ kind: 'ipProg', command: 0xc0 });
  });

  test('what can be set at the panel only says what to turn there, in the device’s own counting', () => {
    const pages = carDeck((page, i) => ({
      status1: ArtNet.STATUS1_AUTHORITY_PANEL,
      ...(i === 0 && { ports: [sacnOut(9), ...page.ports.slice(1)] }),
    }));
    const [drift] = entryOf(nodeOf(pages)).drift;
    expect(drift!.way).toBe('panel');
    expect(driftWords(drift!).panel).toBe('Set port 1 to sACN 2 at the front panel.');
  });
});
