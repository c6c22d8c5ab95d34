/** Pushing to a made-up node that is turned by hand, loses packets, refuses, or falls silent. */
import { decodeAddress, ArtNet } from '@taxiarch/core/protocol/artnet';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { mainAddress } from '@taxiarch/core/network/ip';
import { shortNameOf, type NodeReport } from '@taxiarch/core/network/node';
import type { Asking } from '../bridge/engineMessages';
import type { EngineHost } from '../bridge/host';
import type { ShowDoor } from '../bridge/showDoor';
import { Pusher } from './push';

const ferry = nightFerry();
/** A node with one output on universe 1 by sACN, as its plan has it */
const machine = {
  ...ferry.machine.find(({ kind, ports }) => kind === 'node' && ports.length > 0)!,
  id: 'm',
  name: 'Try node',
  locked: false,
  firmware: '',
  modelId: null,
};
const [port] = machine.ports;
const plan = {
  ...ferry,
  machine: [
    {
      ...machine,
      ports: [
        { ...port!, number: 1, use: 'out', protocol: 'artnet', universe: 9, merge: 'htp', rdm: true, copyOf: null },
      ],
    },
  ],
} as unknown as ReturnType<ShowDoor['plan']>;
const wire = plan.universe.find(({ number }) => number === 9)!.wire;
const address = mainAddress(machine);

class Bench {
  /** What the box is set to, and what was last heard of it */
  isLtp = false;
  private heardLtp = false;
  packets = 0;
  lose = 0;
  refuses = false;
  silent = false;
  kept: string[] = [];

  readonly host = {
    now: () => ({ nodes: [this.node()], discovered: [], universes: [] }),
    freshReport: () => Promise.resolve(),
    ask: (asking: Asking) => {
      if (asking.type !== 'program') throw new Error(asking.type);
      for (const bytes of asking.packets) {
        const read = decodeAddress(bytes);
        this.packets += 1;
        if (this.lose > 0) this.lose -= 1;
        else if (read.ok && (read.value.command & 0xf0) === ArtNet.AcMergeHtp && !this.refuses) this.isLtp = false;
      }
      if (this.silent && asking.packets.length > 0) return Promise.resolve(`${asking.address} does not answer.`);
      this.heardLtp = this.isLtp;
      return Promise.resolve(undefined);
    },
  } as unknown as EngineHost;

  readonly show = {
    plan: () => plan,
    propose: ({ sentence }: { sentence: string }) => {
      this.kept.push(sentence);
      return Promise.resolve(undefined);
    },
  } as unknown as ShowDoor;

  private node = (): NodeReport => ({
    address,
    mac: machine.interfaces[0]!.mac || '02:00:00:00:00:01',
    shortName: shortNameOf(machine.name),
    longName: machine.name,
    report: '',
    kind: 'node',
    firmware: '1.0',
    oem: 0,
    indicators: 'normal',
    panelOnly: false,
    sacnCapable: true,
    rdmSwitch: false,
    directionSwitch: true,
    failSafe: null,
    dhcp: false,
    mask: '',
    gateway: '',
    priority: 100,
    ports: [
      {
        index: 0,
        number: 1,
        page: 1,
        direction: 'out',
        portAddress: wire,
        active: true,
        merging: false,
        ltp: this.heardLtp,
        sacn: false,
        rdm: true,
        disabled: false,
      },
    ],
    partOf: '',
    alsoHere: [],
    alsoAt: [],
    gone: false,
    firstSeen: 0,
    lastSeen: 0,
  });

  async push() {
    const [result] = await new Pusher(this.host, this.show).push(['m']);
    return { trouble: result!.trouble, fields: result!.fields.map(({ what, state }) => [what, state]) };
  }
}

test('a box as planned is left alone', async () => {
  const bench = new Bench();
  expect(await bench.push()).toEqual({ trouble: '', fields: [] });
  expect([bench.packets, bench.kept]).toEqual([0, []]);
});

test('what was turned by hand since the last poll is seen, kept, and put right', async () => {
  const bench = new Bench();
  bench.isLtp = true;
  expect(await bench.push()).toEqual({ trouble: '', fields: [['Port 1, merge', 'done']] });
  expect(bench.kept).toEqual(['Kept how Try node was set before the push']);
});

test('a packet that is lost is sent again', async () => {
  const bench = new Bench();
  bench.isLtp = true;
  bench.lose = 2;
  expect((await bench.push()).fields).toEqual([['Port 1, merge', 'done']]);
  expect(bench.packets).toBe(3);
});

test('refused is who answers and differs all the same; whoever does not answer is not said to refuse', async () => {
  const refusing = new Bench();
  Object.assign(refusing, { isLtp: true, refuses: true });
  expect(await refusing.push()).toEqual({ trouble: '', fields: [['Port 1, merge', 'refused']] });
  const silent = new Bench();
  Object.assign(silent, { isLtp: true, silent: true });
  expect(await silent.push()).toEqual({
    trouble: `${address} does not answer.`,
    fields: [['Port 1, merge', 'no answer']],
  });
});
