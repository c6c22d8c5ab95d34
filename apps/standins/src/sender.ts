/** A stand-in that sends: it plays something on its universes by sACN and Art-Net, and finds nodes by polling. */
import { SLOTS, multicastGroup } from '@taxiarch/core/base/address';
import {
  ArtNet,
  blankPollReply,
  decodeArtNet,
  encodeDmx,
  encodePoll,
  encodePollReply,
  nodeReportText,
  encodeTimeCode,
  portsOf,
  type TimeCodeFrame,
} from '@taxiarch/core/protocol/artnet';
import { Sacn, encodeData, encodeDiscoveryPages, parseCid } from '@taxiarch/core/protocol/sacn';
import type { StandIn } from '@taxiarch/core/whole/contract';
import type { BenchSender } from './bench';
import { BROADCAST, open, type Ports } from './network';
import { NO_MISTAKES, wireWith, type SenderMistakes } from './mistakes';
import { openPanel, type PanelAct, type PanelPage } from './panel';

/** What a sender plays: it writes levels into its universes, many times a second. */
export interface Player {
  /** `seconds` on any clock; `master` 0–1 */
  render(universes: ReadonlyMap<number, Uint8Array>, seconds: number, master: number): void;
  /** The cue that stands, and all there are; empty for what has none */
  readonly cue: string;
  readonly cues: readonly string[];
  /** Goes to a cue by name, or to the next. */
  go(name?: string): void;
  /** Faders on its front, 0–255 */
  readonly faders: readonly number[];
  setFader(index: number, level: number): void;
}

export interface SenderSetup {
  readonly id: string;
  readonly kind: StandIn['kind'];
  readonly model: string;
  readonly name: string;
  readonly address: string;
  readonly cid: string;
  readonly mac: readonly number[];
  readonly priority: number;
  /** Frames a second */
  readonly rate: number;
  /** From show universe to sACN universe */
  readonly sacn: ReadonlyMap<number, number>;
  /** From show universe to Port-Address */
  readonly artnet: ReadonlyMap<number, number>;
  /** It stands beside and is off until somebody switches it on: nobody planned it. */
  readonly off?: boolean;
}

const NODE_GONE_MS = ArtNet.POLL_INTERVAL_MS * ArtNet.MISSED_POLLS + 500;

/** `beside` is what else it does: acts and pages of its panel, and what follows its switch. */
export interface Beside {
  readonly acts: Readonly<Record<string, PanelAct>>;
  readonly pages: Readonly<Record<string, PanelPage>>;
  readonly run: (on: boolean) => void;
  readonly reset: () => void;
}

/** EBU time code counts 25 frames a second. */
const EBU = 25;
const ebu = (count: number): TimeCodeFrame => {
  const seconds = Math.floor(count / EBU);
  return {
    frames: count % EBU,
    seconds: seconds % 60,
    minutes: Math.floor(seconds / 60) % 60,
    hours: Math.floor(seconds / 3600) % 24,
    type: 1,
  };
};

export async function startSender(
  setup: SenderSetup,
  player: Player,
  udp: Ports,
  beside?: Beside,
): Promise<BenchSender> {
  let mistakes = NO_MISTAKES;
  let cid = parseCid(setup.cid);
  const universes = new Map(
    [...setup.sacn.keys(), ...setup.artnet.keys()].map((show) => [show, new Uint8Array(SLOTS)]),
  );
  /** Levels held at the panel, over those of the cue: by show universe, then slot. */
  const faders = new Map<number, Map<number, number>>();
  /** What leaves now, of a show universe: the cue, and over it what is held. */
  const leaving = (show: number): Uint8Array => {
    const played = universes.get(show)!;
    const held = faders.get(show);
    if (!held || held.size === 0) return played;
    const slots = played.slice();
    for (const [slot, level] of held) slots[slot] = level;
    return slots;
  };
  const nodes = new Map<string, { portAddresses: Set<number>; pages: Map<number, number[]>; lastSeen: number }>();
  let master = 1;
  let running = !setup.off;
  let sequence = 0;
  /** Art-Net counts from 1 to 255 and leaves out 0. */
  let artnetSequence = 0;

  const own = await open(setup.address, udp.artnet, receive);
  await open(BROADCAST, udp.artnet, receive);
  let sending = await open(setup.address, 0);
  let sendingFrom = setup.address;

  /** Polls answered so far */
  let answered = 0;
  function receive(bytes: Uint8Array, from: string): void {
    const decoded = decodeArtNet(bytes);
    if (!decoded.ok || from === setup.address) return;
    if (decoded.value.kind === 'poll') {
      // A stranger says nothing of itself; one that does not run neither.
      if (setup.off || !running) return;
      const reply = { ...blankPollReply(setup.address, Uint8Array.from(setup.mac)), style: ArtNet.StController };
      own.send(
        encodePollReply({
          ...reply,
          portName: setup.name,
          longName: `${setup.name}, ${setup.model}`,
          nodeReport: nodeReportText((answered += 1), 'Sends'),
        }),
        udp.artnet,
        from,
      );
    } else if (decoded.value.kind === 'pollReply') {
      const node = nodes.get(from) ?? { portAddresses: new Set(), pages: new Map(), lastSeen: 0 };
      node.pages.set(
        decoded.value.bindIndex,
        portsOf(decoded.value)
          .filter((port) => port.direction === 'out')
          .map((port) => port.portAddress),
      );
      node.portAddresses = new Set([...node.pages.values()].flat());
      node.lastSeen = performance.now();
      nodes.set(from, node);
    }
  }

  function frame(): void {
    const now = performance.now();
    player.render(universes, now / 1000, master);
    sequence = (sequence + 1) & 0xff;
    artnetSequence = (artnetSequence % 255) + 1;
    const { off, silent, also, loses } = mistakes;
    const lost = () => loses > 0 && Math.random() < loses;
    if (!off.includes('sacn'))
      for (const [show, universe] of setup.sacn)
        if (!silent.includes(show) && !lost()) sendSacn(wireWith(mistakes, 'sacn', universe), leaving(show), false);
    for (const universe of also) sendSacn(universe, leaving([...universes.keys()][0]!), false);
    for (const [show, planned] of setup.artnet) {
      if (off.includes('artnet') || silent.includes(show) || lost()) continue;
      const portAddress = wireWith(mistakes, 'artnet', planned);
      const bytes = encodeDmx({
        sequence: artnetSequence,
        physical: 0,
        portAddress,
        slots: leaving(show).subarray(0, mistakes.slots),
      });
      if (mistakes.to !== null) {
        sending.send(bytes, udp.artnet, mistakes.to);
        continue;
      }
      // What lies elsewhere than planned is listed by nobody: it is broadcast, as desks do that find nobody.
      let listed = false;
      for (const [address, node] of nodes)
        if (node.portAddresses.has(portAddress) && now - node.lastSeen < NODE_GONE_MS) {
          listed = true;
          sending.send(bytes, udp.artnet, address);
        }
      if (!listed && portAddress !== planned) sending.send(bytes, udp.artnet, BROADCAST);
    }
  }

  function sendSacn(universe: number, slots: Uint8Array, terminated: boolean): void {
    const bytes = encodeData({
      cid,
      sourceName: setup.name,
      priority: mistakes.priority ?? setup.priority,
      syncAddress: mistakes.syncAddress,
      sequence,
      preview: false,
      terminated,
      forceSync: false,
      universe,
      startCode: mistakes.startCode,
      slots: slots.subarray(0, mistakes.slots),
    });
    sending.send(bytes, udp.sacn, mistakes.to ?? multicastGroup(universe));
  }

  function stop(): void {
    if (!running) return;
    running = false;
    for (let i = 0; i < 3; i += 1) {
      sequence = (sequence + 1) & 0xff;
      for (const universe of setup.sacn.values()) sendSacn(universe, new Uint8Array(SLOTS), true);
    }
  }

  /** sACN universes that really leave, rising */
  const announced = (): number[] =>
    mistakes.off.includes('sacn')
      ? [...mistakes.also]
      : [
          ...[...setup.sacn]
            .filter(([show]) => !mistakes.silent.includes(show))
            .map(([, universe]) => wireWith(mistakes, 'sacn', universe)),
          ...mistakes.also,
        ].sort((a, b) => a - b);

  function discover(): void {
    if (!running) return;
    for (const page of encodeDiscoveryPages(cid, setup.name, announced()))
      sending.send(page, udp.sacn, multicastGroup(Sacn.E131_DISCOVERY_UNIVERSE));
  }

  let clock: NodeJS.Timeout | undefined;
  let count = 0;
  function timeCode(on: boolean): void {
    clearInterval(clock);
    clock = on
      ? setInterval(() => sending.send(encodeTimeCode(ebu((count += 1))), udp.artnet, BROADCAST), 1000 / EBU)
      : undefined;
  }

  const poll = () => own.send(encodePoll(), udp.artnet, BROADCAST);
  let due = performance.now();
  const beat = () => {
    if (running) frame();
    due = Math.max(due + 1000 / (mistakes.rate ?? setup.rate), performance.now());
    setTimeout(beat, due - performance.now());
  };
  poll();
  setInterval(poll, ArtNet.POLL_INTERVAL_MS);
  setTimeout(discover, 1000);
  setInterval(discover, Sacn.E131_E131_UNIVERSE_DISCOVERY_INTERVAL_MS);
  beat();

  await openPanel(
    setup.address,
    udp.panel,
    {
      state: () => ({ name: setup.name, running, master, cue: player.cue, cues: player.cues }),
      go: ({ cue: wanted }) => player.go(wanted === undefined ? undefined : String(wanted)),
      /** Holds one slot (`universe`, `channel`, `level`), lets it go (`level` null), or sets the `master` in percent. */
      fader: ({ universe, channel, level, master: percent }) => {
        if (percent !== undefined) {
          master = Math.min(100, Math.max(0, Number(percent))) / 100;
          return;
        }
        const show = Number(universe);
        if (!universes.has(show)) throw new Error(`This desk has no universe ${String(universe)}.`);
        const slot = Number(channel) - 1;
        if (!Number.isInteger(slot) || slot < 0 || slot >= SLOTS) throw new Error('Channels run from 1 to 512.');
        const held = faders.get(show) ?? new Map<number, number>();
        faders.set(show, held);
        if (level === null) held.delete(slot);
        else held.set(slot, Math.min(255, Math.max(0, Number(level))));
      },
      stop,
      start: () => {
        running = true;
      },
      ...beside?.acts,
    },
    beside?.pages,
  );
  const peak = (slots: Uint8Array) => ({
    peak: Math.max(...slots),
    lit: slots.reduce((count, level) => count + Number(level > 0), 0),
  });
  /** Streams that end are ended by the standard's word, so that no receiver waits for them. */
  async function err(next: Partial<SenderMistakes>): Promise<void> {
    const was = running;
    stop();
    mistakes = { ...mistakes, ...next };
    cid = parseCid(mistakes.cid ?? setup.cid);
    const from = mistakes.from ?? setup.address;
    if (from !== sendingFrom) {
      const before = sending;
      sending = await open(from, 0);
      sendingFrom = from;
      before.close();
    }
    running = was;
    discover();
  }

  return {
    err,
    timeCode,
    playing: () => Object.fromEntries([...universes.keys()].map((show) => [show, [...leaving(show)]])),
    reset: () => beside?.reset(),
    go: (cue) => player.go(cue),
    setFader: (index, level) => player.setFader(index, level),
    setMaster: (percent) => (master = Math.min(100, Math.max(0, percent)) / 100),
    run: (on) => {
      beside?.run(on);
      if (on) running = true;
      else stop();
    },
    report: () => ({
      id: setup.id,
      name: setup.name,
      kind: setup.kind,
      model: setup.model,
      address: setup.address,
      mask: '255.0.0.0',
      stranger: setup.off ?? false,
      powered: running,
      plugged: true,
      loses: 0,
      delays: 0,
      locating: false,
      cue: player.cue,
      cues: player.cues,
      master: Math.round(master * 100),
      faders: player.faders,
      timeCode: clock !== undefined,
      ...(beside && { rigPage: `http://${setup.address}:${udp.panel}/exchange` }),
      ports: [...universes.keys()].map((show, i) => ({
        number: i + 1,
        use: 'out',
        protocol: setup.sacn.has(show) ? 'sacn' : 'artnet',
        wire: setup.sacn.get(show) ?? setup.artnet.get(show)!,
        merge: '',
        state: running ? 'sends' : 'stopped',
        ...peak(leaving(show)),
        sources: [],
      })),
    }),
  };
}
