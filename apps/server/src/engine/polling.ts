/** Asking for Art-Net devices and their masks, and answering when others ask. */
import {
  ArtNet,
  type ArtPoll,
  blankPollReply,
  encodeIpProg,
  encodePoll,
  encodePollReply,
  POLL_TARGETED,
} from '@taxiarch/core/artnet';
import type { InterfaceInfo } from '@taxiarch/core/ip';
import { OWN_NAME } from '@taxiarch/core/stream';

/** A node’s mask is asked for this often. */
const ASK_IP_MS = 10_000;

export interface PollingSurroundings {
  /** Polling is wanted */
  wanted(): boolean;
  artnet(): InterfaceInfo | null;
  send(bytes: Uint8Array, to: string | 'broadcast'): void;
  /** Addresses of nodes whose mask was not asked for since `before` */
  toAskForIp(now: number, before: number): readonly string[];
}

export class Polling {
  constructor(private readonly around: PollingSurroundings) {}

  poll(now: number): void {
    if (!this.around.wanted()) return;
    this.around.send(encodePoll(), 'broadcast');
    for (const address of this.around.toAskForIp(now, now - ASK_IP_MS)) this.around.send(encodeIpProg(), address);
  }

  /** A controller that is polled says who it is (Art-Net 4, ArtPoll); it has no ports of its own. */
  answer(poll: ArtPoll, address: string): void {
    const artnet = this.around.artnet();
    if (!this.around.wanted() || !artnet || address === artnet.address || poll.flags & POLL_TARGETED) return;
    const mac = Uint8Array.from(artnet.mac.split(':'), (byte) => parseInt(byte, 16));
    const reply = { ...blankPollReply(artnet.address, mac), style: ArtNet.StController };
    this.around.send(encodePollReply({ ...reply, portName: OWN_NAME, longName: OWN_NAME }), address);
  }
}
