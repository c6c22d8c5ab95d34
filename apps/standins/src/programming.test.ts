/** Packets made from a plan, obeyed by a node of any model: what it says of itself afterwards is the plan. */
import fc from 'fast-check';
import {
  type ArtAddress,
  ArtNet,
  type ArtPollReply,
  decodeArtNet,
  encodeAddress,
  encodePollReply,
} from '@taxiarch/core/protocol/artnet';
import { MODELS } from '@taxiarch/core/rig/library';
import { fitPort, plainPort } from '@taxiarch/core/network/machine';
import {
  describeNode,
  driftOf,
  heardMachines,
  pushPackets,
  type NodeReport,
  type Drift,
  portOf,
} from '@taxiarch/core/network/node';
import { LOSS_KINDS, type Machine, type MachinePort, type Model, PLAIN_MACHINE } from '@taxiarch/core/show/records';
import { obeyAddress, obeyInput, obeyIpProg, type Acts } from './programming';
import { replyPages } from './replies';
import { settingsOf, type BoxSettings, type BoxSetup } from './settings';

const acts: Acts = { cancelMerge: () => undefined, clear: () => undefined, look: () => [] };
const NODES = MODELS.filter(({ kind, remote, protocols }) => kind === 'node' && remote && protocols.length === 2);

const setupOf = (model: Model): BoxSetup => ({
  id: 'box',
  model,
  mac: [2, 0x7f, 0xf1, 0, 0, 9],
  shortName: 'As it came',
  longName: '',
  address: '127.0.0.90',
  firmware: [1, 0],
  ports: Array.from({ length: model.ports }, () => ({ wire: 0x123 })),
});

function nodeOf(setup: BoxSetup, settings: BoxSettings) {
  const idle = settings.ports.map(() => ({ active: false, merging: false }));
  const pages = replyPages(setup, settings, idle, 1).map((packet, i) => {
    const decoded = decodeArtNet(encodePollReply(packet));
    if (!decoded.ok) throw new Error(decoded.reason);
    return [i + 1, decoded.value as ArtPollReply] as const;
  });
  const { address, mask, gateway, dhcp } = settings;
  const ip = { kind: 'ipProgReply', ip: address, mask, gateway, dhcp, port: ArtNet.ARTNET_PORT } as const;
  return { ...describeNode(new Map(pages), ip), address, gone: false, firstSeen: 0, lastSeen: 0 };
}

function obey(settings: BoxSettings, model: Model, packets: readonly Uint8Array[]): void {
  for (const packet of packets) {
    const decoded = decodeArtNet(packet);
    if (!decoded.ok) throw new Error(decoded.reason);
    const { value: message } = decoded;
    if (message.kind === 'address') obeyAddress(settings, model, message, acts);
    else if (message.kind === 'input') obeyInput(settings, model, message);
    else if (message.kind === 'ipProg') obeyIpProg(settings, model, message);
  }
}

/** Ports that the model can do, all of one page in one sub-net, with one loss of signal. */
const plans = fc.constantFrom(...NODES).chain((model) =>
  fc
    .tuple(
      fc.array(
        fc.record({
          low: fc.integer({ min: 0, max: 15 }),
          protocol: fc.constantFrom('sacn' as const, 'artnet' as const),
          use: fc.constantFrom('out' as const, 'out' as const, 'in' as const),
          merge: fc.constantFrom('htp' as const, 'ltp' as const),
          rdm: fc.boolean(),
        }),
        { minLength: model.ports, maxLength: model.ports },
      ),
      fc.array(fc.integer({ min: 1, max: 0x7f }), { minLength: 16, maxLength: 16 }),
      fc.constantFrom(...LOSS_KINDS),
      fc.integer({ min: 1, max: 254 }),
      fc.integer({ min: 0, max: 200 }),
    )
    .map(([ports, pages, loss, host, priority]) => {
      const planned = ports.map(({ low, ...port }, i): MachinePort => {
        const wire = (pages[Math.floor(i / model.perPage)]! << 8) | low;
        const universe = port.protocol === 'artnet' ? wire + 1 : wire;
        const plain = { ...plainPort(i + 1, universe), ...port, priority, loss: { kind: loss, after: 0, over: 0 } };
        return fitPort(model, plain);
      });
      const machine: Machine = {
        ...PLAIN_MACHINE,
        id: 'm',
        rev: 1,
        name: 'Planned name',
        kind: 'node',
        modelId: model.id,
        interfaces: [{ name: '', mac: '', addresses: [{ way: 'fixed', address: `127.0.7.${host}`, prefix: 16 }] }],
        ports: planned,
      };
      return { model, machine };
    }),
);

function packetsOf(machine: Machine, node: NodeReport, drift: readonly Drift[]): Uint8Array[] {
  const packets = pushPackets(machine, new Map(), node, drift);
  if (!packets.ok) throw new Error(packets.why);
  return packets.value;
}

test('a plan pushed to any model leaves no field that differs but those that no packet sets', () =>
  fc.assert(
    fc.property(plans, ({ model, machine }) => {
      const setup = setupOf(model);
      const settings = settingsOf(setup);
      const drift = () => {
        const node = nodeOf(setup, settings);
        const [heard] = heardMachines({ nodes: [node], discovered: [], universes: [] });
        return { node, list: driftOf(machine, model, new Map(), heard!) };
      };
      // A port's direction decides which of its numbers is told, so that a second push may be needed.
      for (let round = 0; round < 2; round += 1) {
        const { node, list } = drift();
        obey(settings, model, packetsOf(machine, node, list));
      }
      expect(drift().list.filter(({ way }) => way !== 'panel')).toEqual([]);
      const again = drift();
      expect(packetsOf(machine, again.node, again.list)).toEqual([]);
    }),
    { numRuns: 150 },
  ));

/** Plans of one port that is moved anywhere, on a box whose other ports are as planned. */
const moves = plans.chain(({ model, machine }) =>
  fc.tuple(fc.nat(machine.ports.length - 1), fc.integer({ min: 1, max: 0x7fff })).map(([which, universe]) => ({
    model,
    machine,
    next: { ...machine, ports: machine.ports.map((port, i) => (i === which ? { ...port, universe } : port)) },
  })),
);

test('a port that is moved never disturbs those that were right; where it cannot be moved, nothing is sent', () => {
  let refused = 0;
  fc.assert(
    fc.property(moves, ({ model, machine, next }) => {
      const setup = setupOf(model);
      const settings = settingsOf(setup);
      const drift = (plan: Machine) => {
        const node = nodeOf(setup, settings);
        const [heard] = heardMachines({ nodes: [node], discovered: [], universes: [] });
        return { node, list: driftOf(plan, model, new Map(), heard!) };
      };
      for (let round = 0; round < 2; round += 1) {
        const { node, list } = drift(machine);
        obey(settings, model, packetsOf(machine, node, list));
      }
      const { node, list } = drift(next);
      const right = new Set(next.ports.map(({ number }) => number));
      for (const one of list) right.delete(portOf(one) ?? 0);
      const packets = pushPackets(next, new Map(), node, list);
      if (!packets.ok) {
        refused += 1;
        expect(packets.why).toMatch(/share net and sub-net/);
        return;
      }
      for (const packet of packets.value) {
        obey(settings, model, [packet]);
        expect(drift(next).list.filter((one) => right.has(portOf(one) ?? 0))).toEqual([]);
      }
      expect(drift(next).list.filter(({ kind, way }) => kind === 'universe' && way !== 'panel')).toEqual([]);
    }),
    { numRuns: 150 },
  );
  expect(refused).toBeGreaterThan(0);
});

describe('every command of Address', () => {
  const rack = MODELS.find(({ name }) => name === 'Rack 8')!;
  const pair = MODELS.find(({ name }) => name === 'Pair 2')!;
  const after = (command: number, model = rack, bindIndex = 1): BoxSettings => {
    const settings = settingsOf(setupOf(model));
    const decoded = decodeArtNet(encodeAddress({ command, bindIndex }));
    obeyAddress(settings, model, (decoded as { value: ArtAddress }).value, { ...acts, look: () => [5, 6] });
    return settings;
  };

  test('indicators', () => {
    expect(after(ArtNet.AcLedLocate).indicators).toBe('locate');
    expect(after(ArtNet.AcLedMute).indicators).toBe('mute');
    expect(after(ArtNet.AcLedNormal).indicators).toBe('normal');
  });
  test('loss of signal, as far as the model has it', () => {
    const kinds = [ArtNet.AcFailHold, ArtNet.AcFailZero, ArtNet.AcFailFull, ArtNet.AcFailScene];
    expect(kinds.map((command) => after(command).ports[7]!.loss.kind)).toEqual(['hold', 'hold-black', 'full', 'look']);
    expect(after(ArtNet.AcFailFull, pair).ports[0]!.loss.kind).toBe('hold');
    expect(after(ArtNet.AcFailRecord).ports[3]!.look).toEqual([5, 6]);
  });
  test('of one port of a page: merge, direction, protocol, RDM', () => {
    expect(
      after(ArtNet.AcMergeLtp + 2, rack, 2)
        .ports.map(({ merge }) => merge)
        .indexOf('ltp'),
    ).toBe(6);
    expect(after(ArtNet.AcMergeLtp, pair).ports[0]!.merge).toBe('none');
    expect(after(ArtNet.AcDirectionRx + 1).ports[1]!.use).toBe('in');
    expect(after(ArtNet.AcDirectionRx + 1, pair).ports[1]!.use).toBe('out');
    expect(after(ArtNet.AcArtNetSel + 3).ports[3]!.protocol).toBe('artnet');
    expect(after(ArtNet.AcAcnSel + 3).ports[3]!.protocol).toBe('sacn');
    expect(after(ArtNet.AcRdmEnable).ports[0]!.rdm).toBe(true);
    expect(after(ArtNet.AcRdmDisable).ports[0]!.rdm).toBe(false);
  });
  test('merge cancelled and output cleared, by the port’s place in the whole box', () => {
    const called: unknown[] = [];
    const settings = settingsOf(setupOf(rack));
    const message = (command: number) =>
      (decodeArtNet(encodeAddress({ command, bindIndex: 2 })) as { value: ArtAddress }).value;
    const watch: Acts = {
      cancelMerge: () => called.push('cancel'),
      clear: (port) => called.push(port),
      look: () => [],
    };
    obeyAddress(settings, rack, message(ArtNet.AcCancelMerge), watch);
    obeyAddress(settings, rack, message(ArtNet.AcClearOp + 1), watch);
    expect(called).toEqual(['cancel', 5]);
  });
});

test('IpProg: asking changes nothing, programming does, and an address off loopback is left alone', () => {
  const rack = MODELS.find(({ name }) => name === 'Rack 8')!;
  const after = (command: number, ip: string, mask = '255.255.0.0', model = rack) => {
    const settings = settingsOf(setupOf(model));
    obeyIpProg(settings, model, { kind: 'ipProg', command, ip, mask, gateway: '127.0.0.1' });
    return [settings.address, settings.mask, settings.dhcp];
  };
  const all = ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_ADDRESS | ArtNet.IPPROG_MASK;
  expect(after(0, '127.0.0.99')).toEqual(['127.0.0.90', '255.0.0.0', false]);
  expect(after(all & ~ArtNet.IPPROG_ENABLE, '127.0.0.99')).toEqual(['127.0.0.90', '255.0.0.0', false]);
  expect(after(all, '127.0.0.99')).toEqual(['127.0.0.99', '255.255.0.0', false]);
  expect(after(all, '10.0.0.1')).toEqual(['127.0.0.90', '255.255.0.0', false]);
  expect(after(all, '127.0.0.99', '255.0.255.0')).toEqual(['127.0.0.99', '255.0.0.0', false]);
  expect(after(ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_DHCP, '')).toEqual(['127.0.0.90', '255.0.0.0', true]);
  expect(
    after(
      all,
      '127.0.0.99',
      '255.0.0.0',
      MODELS.find(({ name }) => name === 'Pair 2')!,
    )[0],
  ).toBe('127.0.0.90');
});
