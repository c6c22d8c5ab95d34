/** Asking for Art-Net devices and their masks; and answering when others ask, as a node that lists what we listen to. */
import {
  type ArtPoll,
  encodeIpProg,
  encodePoll,
  encodePollReply,
  listedOf,
  listingPages,
  pollMeans,
  Subscribers,
} from '@taxiarch/core/protocol/artnet';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import { OWN_NAME } from '@taxiarch/core/signal/stream';

/** A node’s mask is asked for with each poll: what was turned by hand is to be seen as soon as the rest. */
const ASK_IP_MS = 2500;
export interface PollingSurroundings {
  /** Polling is wanted */
  wanted(): boolean;
  /** What polls ask for beside who is there */
  asks(): Pick<ArtPoll, 'flags' | 'diagnosticsPriority'>;
  artnet(): InterfaceInfo | null;
  send(bytes: Uint8Array, to: string | 'broadcast'): void;
  /** Addresses of nodes whose mask was not asked for since `before` */
  toAskForIp(now: number, before: number): readonly string[];
  /** Port-Addresses to be listed, those that are opened first; and at most how many */
  toList(): { readonly wanted: readonly number[]; readonly most: number };
  /** Whether anything comes on a Port-Address now */
  hears(portAddress: number): boolean;
}

export class Polling {
  private readonly subscribers = new Subscribers();
  private told = '';
  private answered = 0;

  constructor(private readonly around: PollingSurroundings) {}

  /** Port-Addresses that polls are told. */
  get listed(): readonly number[] {
    const { wanted, most } = this.around.toList();
    return this.around.artnet() ? listedOf(wanted, most) : [];
  }

  poll(now: number): void {
    if (!this.around.wanted()) return;
    this.around.send(encodePoll(this.around.asks()), 'broadcast');
    for (const address of this.around.toAskForIp(now, now - ASK_IP_MS)) this.around.send(encodeIpProg(), address);
  }

  /** Who polls is told which universes we listen to (Art-Net 4, ArtPoll): then controllers send them here too. */
  answer(poll: ArtPoll, address: string, now: number): void {
    if (address === this.around.artnet()?.address) return;
    // Neither asking nor listed: nobody is to know that we are here.
    if (!this.around.wanted() && this.listed.length === 0) return;
    this.subscribers.note(poll, address, now);
    for (const page of this.pages()) if (pollMeans(poll, page)) this.around.send(encodePollReply(page), address);
  }

  /** Others are to be listed now: whoever asked to be told of changes is told. */
  changed(now: number): void {
    const listed = this.listed.join();
    if (listed === this.told) return;
    this.told = listed;
    const pages = this.pages().map((page) => encodePollReply(page));
    for (const address of this.subscribers.addresses(now)) for (const page of pages) this.around.send(page, address);
  }

  private pages(): ReturnType<typeof listingPages> {
    const artnet = this.around.artnet();
    if (!artnet) return [];
    return listingPages({
      ...this.around.toList(),
      ip: artnet.address,
      mac: Uint8Array.from(artnet.mac.split(':'), (byte) => parseInt(byte, 16)),
      name: OWN_NAME,
      answered: this.answered++,
      active: (portAddress) => this.around.hears(portAddress),
    });
  }
}
