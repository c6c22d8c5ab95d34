/** A DMX adapter whose serial port is reached by RFC 2217: it sees breaks and slots and times the frames, or sends them. */
import { createServer, type Server, type Socket } from 'node:net';
import { SLOTS } from '@taxiarch/core/base/address';
import type { StandIn } from '@taxiarch/core/whole/contract';
import {
  ComPortReader,
  encodeAsk,
  encodeCommand,
  encodeHeardFrame,
  FrameReader,
  isBreak,
  type ComPortEvent,
} from '@taxiarch/core/protocol/plug';
import { openPanel } from '../panel';
import { adapterPage } from './adapterPage';

export interface AdapterSetup {
  readonly id: string;
  readonly name: string;
  readonly model: string;
  readonly address: string;
  /** What hangs on its cable: lamps that it feeds, or a desk that feeds it */
  readonly use: 'out' | 'in';
}

/** Frames a second of the desk behind an input. */
const DESK_RATE = 30;
/** Intervals over which the rate is told */
const MOST_INTERVALS = 200;
const FADERS = 8;

export class AdapterBox {
  private server: Server | undefined;
  private client: Socket | undefined;
  private plugged = true;
  private frames = 0;
  private slots = 0;
  private odd = 0;
  private lastAt = 0;
  private intervals: number[] = [];
  private values = new Uint8Array(SLOTS);
  private readonly held = new Uint8Array(SLOTS);
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly setup: AdapterSetup,
    private readonly port: number,
  ) {}

  async start(panel: number): Promise<void> {
    await this.listen();
    await openPanel(
      this.setup.address,
      panel,
      {
        values: () => ({ values: [...(this.setup.use === 'out' ? this.values : this.held)], says: this.says() }),
        /** Holds a channel (from 1) of the desk behind an input at a level. */
        fader: ({ channel, level }) => this.setFader(Number(channel) - 1, Number(level)),
        plug: ({ on }) => this.plug(on === true),
      },
      { '': () => ({ type: 'text/html; charset=utf-8', body: adapterPage(this.setup.name, this.setup.use) }) },
    );
    if (this.setup.use === 'in') this.timer = setInterval(() => this.sendFrame(), 1000 / DESK_RATE);
  }

  private listen(): Promise<void> {
    const server = createServer({ noDelay: true }, (socket) => this.serve(socket));
    this.server = server;
    return new Promise((ready, failed) => {
      server.once('error', failed);
      server.listen(this.port, this.setup.address, ready);
    });
  }

  /** A port has one user at a time. */
  private serve(socket: Socket): void {
    if (this.client) return void socket.destroy();
    this.client = socket;
    this.lastAt = 0;
    this.intervals = [];
    const reader = new ComPortReader();
    const frames = new FrameReader();
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (this.client === socket) this.client = undefined;
    });
    socket.on('data', (bytes: Buffer) => {
      for (const event of reader.push(new Uint8Array(bytes))) this.take(event, frames, socket);
    });
  }

  private take(event: ComPortEvent, frames: FrameReader, socket: Socket): void {
    const now = performance.now();
    if (event.kind === 'asks') {
      if (event.verb === 'do' || event.verb === 'will')
        socket.write(encodeAsk(event.verb === 'do' ? 'will' : 'do', event.option));
      return;
    }
    if (event.kind === 'command') {
      if (event.server) return;
      // The port says of each command that it was carried out.
      socket.write(encodeCommand(event.code, [...event.value], true));
      if (isBreak(event) !== 'on') return;
      const whole = frames.lineBreak(now);
      if (whole) this.note(whole.startCode, whole.slots);
      if (this.lastAt > 0) this.intervals = [...this.intervals, now - this.lastAt].slice(-MOST_INTERVALS);
      this.lastAt = now;
      return;
    }
    const whole = frames.push(event.bytes, now);
    if (whole) this.note(whole.startCode, whole.slots);
  }

  private note(startCode: number, slots: Uint8Array): void {
    this.frames += 1;
    if (startCode !== 0) this.odd += 1;
    else {
      this.values = new Uint8Array(SLOTS);
      this.values.set(slots);
      this.slots = slots.length;
    }
  }

  private sendFrame(): void {
    if (!this.client) return;
    this.frames += 1;
    this.client.write(encodeHeardFrame(this.held));
  }

  private setFader(index: number, level: number): void {
    if (!Number.isInteger(index) || index < 0 || index >= SLOTS) throw new Error('Channels run from 1 to 512.');
    this.held[index] = Math.min(255, Math.max(0, level));
  }

  /** A hand pulls it out or puts it back. */
  async plug(on: boolean): Promise<void> {
    if (on === this.plugged) return;
    this.plugged = on;
    if (on) return this.listen();
    this.client?.destroy();
    this.client = undefined;
    await new Promise<void>((done) => this.server?.close(() => done()));
  }

  handle({ plugged, fader }: { readonly plugged?: boolean; readonly fader?: readonly [number, number] }) {
    if (fader) this.setFader(...fader);
    return plugged === undefined ? undefined : this.plug(plugged);
  }

  async reset(): Promise<void> {
    this.held.fill(0);
    await this.plug(true);
  }

  private says(): string {
    if (!this.plugged) return 'Nobody can reach it: it is unplugged.';
    if (!this.client) return 'Nobody has opened it.';
    if (this.setup.use === 'in') return `Sends ${DESK_RATE} frames a second, ${this.frames} so far.`;
    const { intervals } = this;
    const silent = this.lastAt === 0 || performance.now() - this.lastAt > 1000;
    if (silent || intervals.length === 0) return 'It is open, and nothing comes.';
    const mean = intervals.reduce((sum, one) => sum + one, 0) / intervals.length;
    const longest = Math.max(...intervals);
    return `${(1000 / mean).toFixed(1)} frames a second of ${this.slots} slots; the longest pause was ${longest.toFixed(1)} ms.${this.odd > 0 ? ` ${this.odd} with another start code.` : ''}`;
  }

  report(): StandIn {
    const { id, name, model, address, use } = this.setup;
    return {
      ...{ id, name, kind: 'adapter', model, address, mask: '', plugged: this.plugged, powered: true },
      ...{ loses: 0, delays: 0, locating: false, cue: '', cues: [], master: 100, ports: [] },
      faders: use === 'in' ? [...this.held.subarray(0, FADERS)] : [],
      adapter: { use, at: `${address}:${this.port}`, says: this.says() },
    };
  }

  end(): void {
    clearInterval(this.timer);
    this.client?.destroy();
    this.server?.close();
  }
}

export const ADAPTERS: readonly AdapterSetup[] = [
  { id: 'chart-plug', name: 'Chart room plug', model: 'Saltcote Stub', address: '127.0.0.46', use: 'out' },
  { id: 'tally-plug', name: 'Tally plug', model: 'Saltcote Stub In', address: '127.0.0.47', use: 'in' },
];
