import {
  type ArtAddress,
  ArtNet,
  type ArtPollReply,
  blankPollReply,
  decodeArtNet,
  type PollReplyPort,
} from '../../protocol/artnet';
import {
  adopt,
  bringOnSteps,
  describeNode,
  type HeardMachine,
  heardMachines,
  type MachineEntry,
  matchByHand,
  matchMachines,
  type NodeReport,
  pushPackets,
  pushVerdict,
  setByHand,
  shortNameOf,
  adoptDrift,
  type Drift,
  driftWords,
  driftKey,
} from '.';
import { nightFerry } from '../../whole/demo';
import { MODELS } from '../../rig/library';
import { plainPort } from '../machine';
import { recordsAfter } from '../../show/edit';
import { type Machine, PLAIN_MACHINE, type ShowRecords } from '../../show/records';

const ferry = nightFerry();
const universes = new Map(ferry.universe.map((one) => [one.number, one]));
const byName = (name: string, records: ShowRecords = ferry): Machine =>
  records.machine.find((one) => one.name === name)!;
const macOf = ({ interfaces }: Machine): Uint8Array =>
  Uint8Array.from(interfaces[0]!.mac.split(':'), (pair) => parseInt(pair, 16));

const BLANK: PollReplyPort = { type: 0, goodInput: 0, goodOutputA: 0, goodOutputB: 0x80, swIn: 0, swOut: 0 };
const sacnOut = (wire: number): PollReplyPort => ({
  ...BLANK,
  type: ArtNet.PORT_CAN_OUTPUT,
  goodOutputA: ArtNet.OUTPUT_SENDING | ArtNet.OUTPUT_FROM_SACN,
  goodOutputB: 0,
  swOut: wire,
});

/** Pages of the Car deck node as it should answer, with changes. */
function carDeck(
  change: (page: Omit<ArtPollReply, 'kind'>, index: number) => Partial<ArtPollReply> = () => ({}),
): Map<number, ArtPollReply> {
  const plan = byName('Car deck node');
  const ports = [[2, 3, 4, 5].map(sacnOut), [sacnOut(7), sacnOut(8), BLANK, BLANK]];
  return new Map(
    ports.map((four, i) => {
      const page = {
        ...blankPollReply('127.0.0.33', macOf(plan)),
        version: 0x0109,
        portName: 'Car deck node',
        portCount: 4,
        ports: four,
        bindIndex: i + 1,
        status2: 0x9c,
        status3: ArtNet.STATUS3_FAIL_SUPPORTED | ArtNet.STATUS3_DIRECTION_SWITCH,
      };
      return [i + 1, { kind: 'pollReply', ...page, ...change(page, i) }];
    }),
  );
}

const nodeOf = (pages: Map<number, ArtPollReply>, over: Partial<NodeReport> = {}): NodeReport => ({
  ...describeNode(pages, { kind: 'ipProgReply', ip: '', mask: '255.0.0.0', gateway: '', port: 0x1936, dhcp: false }),
  address: '127.0.0.33',
  gone: false,
  firstSeen: 1,
  lastSeen: 2,
  ...over,
});
const heardOf = (node: NodeReport): HeardMachine => heardMachines({ nodes: [node], discovered: [], universes: [] })[0]!;
const entryOf = (node: NodeReport, records: ShowRecords = ferry): MachineEntry =>
  matchMachines(records, [heardOf(node)]).find(({ heard }) => heard)!;

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

/** What a push would send, read again; it must not be refused. */
function sent(plan: Machine, node: NodeReport, drift: readonly Drift[]) {
  const packets = pushPackets(plan, universes, node, drift);
  if (!packets.ok) throw new Error(packets.why);
  return packets.value.map((packet) => {
    const decoded = decodeArtNet(packet);
    return decoded.ok ? decoded.value : undefined;
  });
}

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

describe('push', () => {
  const wrong = carDeck((page, i) => ({
    portName: 'Box',
    netSwitch: 1,
    ...(i === 0 && { ports: [{ ...sacnOut(9), goodOutputA: 0x83 }, ...page.ports.slice(1)] }),
  }));

  test('packets for what differs and can be set, page by page, the address last', () => {
    const node = nodeOf(wrong, { address: '127.0.0.77' });
    const { drift } = entryOf(node);
    const packets = sent(byName('Car deck node'), node, drift);
    expect(packets.map((one) => one?.kind)).toEqual(['address', 'address', 'address', 'address', 'ipProg']);
    expect(packets[0]).toMatchObject({ portName: 'Car deck node', netSwitch: 0x7f });
    expect(packets[1]).toMatchObject({ bindIndex: 1, command: ArtNet.AcMergeHtp });
    expect(packets[2]).toMatchObject({
      bindIndex: 1,
      netSwitch: 0x80,
      subSwitch: 0x80,
      swOut: [0x82, 0x83, 0x84, 0x85],
    });
    expect(packets[3] as ArtAddress).toMatchObject({ bindIndex: 2, swOut: [0x87, 0x88, 0x7f, 0x7f] });
    expect(packets[4]).toMatchObject({ command: 0x86, ip: '127.0.0.33', mask: '255.0.0.0' });
  });

  test('one port that is off leaves its neighbours, and the sub-net they share, alone', () => {
    const node = nodeOf(carDeck((page, i) => (i === 0 ? { ports: [sacnOut(9), ...page.ports.slice(1)] } : {})));
    const packets = sent(byName('Car deck node'), node, entryOf(node).drift);
    expect(packets).toMatchObject([
      {
        bindIndex: 1,
        netSwitch: 0x7f,
        subSwitch: 0x7f,
        swOut: [0x82, 0x7f, 0x7f, 0x7f],
        swIn: [0x7f, 0x7f, 0x7f, 0x7f],
      },
    ]);
  });

  test('ports of one page planned in several sub-nets are refused before anything is sent', () => {
    const node = nodeOf(carDeck());
    const deck = byName('Car deck node');
    const plan: Machine = {
      ...deck,
      name: 'Renamed',
      ports: deck.ports.map((port) => (port.number === 2 ? { ...port, universe: 300 } : port)),
    };
    const records = { ...ferry, machine: ferry.machine.map((one) => (one === deck ? plan : one)) };
    const { drift } = entryOf(node, records);
    expect(drift.map(driftKey)).toEqual(['name', '2 universe']);
    expect(pushPackets(plan, universes, node, drift)).toMatchObject({
      ok: false,
      reason: 'not-possible',
      why: 'Ports 1 and 2 of Renamed are planned on 0.0.2 and 1.2.12, but ports of one page of this box share net and sub-net. Plan them within one sub-net, or on another page.',
    });
  });

  test('nothing differs, nothing is sent', () => {
    const node = nodeOf(carDeck());
    expect(sent(byName('Car deck node'), node, entryOf(node).drift)).toEqual([]);
  });

  test('each field is done, refused, or not for the protocol', () => {
    const before = entryOf(nodeOf(carDeck(() => ({ portName: 'Box', version: 1 })))).drift;
    const after = entryOf(nodeOf(carDeck(() => ({ version: 1 })))).drift;
    expect(pushVerdict(before, after, true).map(({ what, state }) => [what, state])).toEqual([
      ['Name', 'done'],
      ['Firmware', 'not supported'],
    ]);
    expect(pushVerdict(before, before, true).map(({ state }) => state)).toEqual(['refused', 'not supported']);
  });
});

describe('into the plan', () => {
  test('the wire’s truth taken over leaves nothing that differs', () => {
    const pages = carDeck((page, i) => ({
      portName: 'Box',
      version: 0x0200,
      status3: 0x68,
      ...(i === 0 && { ports: [{ ...sacnOut(3), goodOutputA: 0x83, goodOutputB: 0x80 }, ...page.ports.slice(1)] }),
    }));
    const node = nodeOf(pages, { address: '127.0.0.77', mask: '255.255.0.0' });
    const entry = entryOf(node);
    const plan = adoptDrift(ferry, entry.plan!, entry.heard!, entry.drift);
    expect(plan.lines).toHaveLength(entry.drift.length);
    expect(entryOf(node, recordsAfter(ferry, plan.changes))).toMatchObject({ name: 'Box', state: 'matched' });
  });

  test('a stranger adopted is matched at once', () => {
    const records = { ...ferry, machine: ferry.machine.filter(({ name }) => name !== 'Car deck node') };
    const node = nodeOf(carDeck());
    expect(entryOf(node, records).state).toBe('stranger');
    const plan = adopt(records, heardOf(node), 'new');
    expect(entryOf(node, recordsAfter(records, plan.changes))).toMatchObject({ key: 'new', state: 'matched' });
  });

  test('matched by hand, the hardware address goes into the plan', () => {
    const node = nodeOf(carDeck(), { mac: '02:00:00:00:00:99', address: '127.0.0.99', shortName: 'New box' });
    const plan = matchByHand(byName('Porthole'), heardOf(node));
    const after = matchMachines(recordsAfter(ferry, plan.changes), [heardOf(node)]);
    expect(after.find(({ name }) => name === 'Porthole')).toMatchObject({ by: 'hardware address', state: 'drifted' });
  });
});

test('bringing on: what the wire shows is ticked by itself, the rest by a person', () => {
  const fresh = matchMachines(ferry, []).find(({ name }) => name === 'Car deck node')!;
  const steps = (entry: MachineEntry) => bringOnSteps({ ...entry, plan: entry.plan! });
  const done = (entry: MachineEntry) =>
    steps(entry)
      .filter((step) => step.done)
      .map(({ id }) => id);
  expect(done(fresh)).toEqual([]);
  const there = entryOf(nodeOf(carDeck()));
  expect(done(there)).toEqual(['answers', 'firmware', 'address', 'name', 'ports', 'signal']);
  const ticked = { ...there, plan: { ...there.plan!, ticks: ['power', 'light'] } };
  expect(done(ticked)).toHaveLength(steps(ticked).length);
  expect(done(entryOf(nodeOf(carDeck(() => ({ portName: 'Box' })))))).not.toContain('name');
});

describe('what stays with the front panel', () => {
  const model = (name: string) => MODELS.find((one) => one.name === name)!;

  test('times, start, rate and merges that Art-Net does not know, ports of one kind together', () => {
    const ports = [1, 2, 3].map((n) => plainPort(n, n));
    ports[1] = { ...ports[1]!, merge: 'priority', start: 'black', rate: 44 };
    ports[2] = { ...ports[2]!, use: 'fixed', fixed: 12 };
    expect(setByHand({ ports }, model('Rack 8'))).toEqual([
      'Port 1, at the start: waits for signal.',
      'Port 1, rate: 40 Hz.',
      'Port 2, merge: priority wins.',
      'Port 2, at the start: black.',
      'Port 3, fixed value 12.',
    ]);
    const fading = ports.slice(0, 2).map((port) => ({ ...port, loss: { kind: 'fade', after: 2, over: 3 } as const }));
    expect(setByHand({ ports: fading }, model('Rack 8'))).toContain(
      'Ports 1, 2, signal lost: fades to black in 3 s after 2 s.',
    );
  });

  test('different losses in one box, since Art-Net has one for all', () => {
    const ports = [plainPort(1, 1), { ...plainPort(2, 2), loss: { kind: 'full', after: 0, over: 0 } as const }];
    expect(setByHand({ ports }, model('Rack 8'))).toEqual(
      expect.arrayContaining(['Port 1, signal lost: holds for ever.', 'Port 2, signal lost: full.']),
    );
  });

  test('a model without a choice asks for nothing', () =>
    expect(setByHand({ ports: [{ ...plainPort(1, 1), merge: 'none' }] }, model('Pair 2'))).toEqual([]));
});

describe('two boxes at one address', () => {
  const box = (mac: string, shortName: string, firstSeen: number) =>
    ({
      ...{ address: '10.0.0.9', mac, shortName, longName: '', ports: [], gone: false, dhcp: false, mask: '255.0.0.0' },
      ...{ kind: 'node', firmware: '', alsoHere: ['the other'], alsoAt: [], partOf: '', firstSeen, lastSeen: 90 },
    }) as unknown as NodeReport;
  const heard = heardMachines({
    nodes: [box('02:00:00:00:00:01', 'One', 10), box('02:00:00:00:00:02', 'Two', 20)],
    discovered: [],
    universes: [],
  });

  test('are listed as two strangers, each with its hardware address and a page of its own', () => {
    const entries = matchMachines({ machine: [], model: [], universe: [] }, heard);
    expect(entries.map(({ key, name, heard: one }) => [key, name, one!.node!.mac])).toEqual([
      ['10.0.0.9', 'One', '02:00:00:00:00:01'],
      ['02:00:00:00:00:02', 'Two', '02:00:00:00:00:02'],
    ]);
  });

  test('a planned machine of that address is the one that was there first; the other is a stranger', () => {
    const plan = {
      ...PLAIN_MACHINE,
      ...{ id: 'm', rev: 1, name: 'Planned', kind: 'node' as const },
      interfaces: [{ name: '', mac: '', addresses: [{ way: 'fixed' as const, address: '10.0.0.9', prefix: 8 }] }],
    };
    const entries = matchMachines({ machine: [plan], model: [], universe: [] }, heard);
    expect(entries.map(({ key, heard: one, state }) => [key, one!.name, state])).toEqual([
      ['m', 'One', 'drifted'],
      ['10.0.0.9', 'Two', 'stranger'],
    ]);
  });
});
