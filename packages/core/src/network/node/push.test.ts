/** What is sent to a node, what is taken from it into the plan, and what stays with its front panel. */
import { type ArtAddress, ArtNet } from '../../protocol/artnet';
import {
  adopt,
  bringOnSteps,
  heardMachines,
  type MachineEntry,
  matchByHand,
  matchMachines,
  type NodeReport,
  pushPackets,
  pushVerdict,
  setByHand,
  adoptDrift,
  driftKey,
} from '.';
import { MODELS } from '../../rig/library';
import { plainPort } from '../machine';
import { recordsAfter } from '../../show/edit';
import { type Machine, PLAIN_MACHINE } from '../../show/records';
import { ferry, universes, byName, sacnOut, carDeck, nodeOf, heardOf, entryOf, sent } from './testing/nodes';

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
