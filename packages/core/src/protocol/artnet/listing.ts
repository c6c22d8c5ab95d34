/** A receiver that lists itself as a node: controllers send a universe only to those whose replies list it. */
import { type ArtPoll, POLL_TARGETED } from './poll';
import * as A from './constants';
import { type ArtPollReply, PORTS_PER_PAGE, blankPollReply } from './pollReply';

/** Pages are numbered by one byte, from 1 (Art-Net 4, ArtPollReply, BindIndex). */
const MOST_PAGES = 255;
const NO_PORT = { type: 0, goodInput: 0, goodOutputA: 0, goodOutputB: 0, swIn: 0, swOut: 0 };

export interface Listing {
  /** Port-Addresses that shall be listed, the most wanted first */
  readonly wanted: readonly number[];
  /** At most so many of them */
  readonly most: number;
  /** Dotted, and 6 bytes */
  readonly ip: string;
  readonly mac: Uint8Array;
  readonly name: string;
  /** Replies given before, for the report’s counter */
  readonly answered: number;
  /** Whether data comes on a Port-Address now */
  active(portAddress: number): boolean;
}

/** Those that can be listed, rising: a page has up to four ports of one net and sub-net. */
export function listedOf(wanted: readonly number[], most: number): number[] {
  const pages = new Map<number, number>();
  let full = 0;
  const listed: number[] = [];
  for (const portAddress of new Set(wanted)) {
    if (listed.length >= most) break;
    const there = pages.get(portAddress >> 4) ?? 0;
    if (there % PORTS_PER_PAGE === 0) {
      if (full >= MOST_PAGES) continue;
      full += 1;
    }
    pages.set(portAddress >> 4, there + 1);
    listed.push(portAddress);
  }
  return listed.sort((a, b) => a - b);
}

/** The pages of a node with an output for each; one of a controller without ports if there is none. */
export function listingPages({ wanted, most, ip, mac, name, answered, active }: Listing): Omit<ArtPollReply, 'kind'>[] {
  const listed = listedOf(wanted, most);
  const page = {
    ...blankPollReply(ip, mac),
    portName: name.slice(0, 17),
    longName: name,
    nodeReport: nodeReportText(answered, listed.length === 0 ? 'Listens' : `Listens to ${listed.length}`),
  };
  if (listed.length === 0) return [{ ...page, style: A.StController }];
  const pages: number[][] = [];
  for (const portAddress of listed) {
    const last = pages[pages.length - 1];
    if (last && last.length < PORTS_PER_PAGE && last[0]! >> 4 === portAddress >> 4) last.push(portAddress);
    else pages.push([portAddress]);
  }
  return pages.map((ports, i) => ({
    ...page,
    longName: `${name}, listening to ${listed.length}`,
    bindIndex: i + 1,
    netSwitch: ports[0]! >> 8,
    subSwitch: (ports[0]! >> 4) & 0x0f,
    portCount: ports.length,
    ports: Array.from({ length: PORTS_PER_PAGE }, (_, place) => {
      const portAddress = ports[place];
      if (portAddress === undefined) return NO_PORT;
      return {
        ...NO_PORT,
        type: A.PORT_CAN_OUTPUT,
        goodOutputA: active(portAddress) ? A.OUTPUT_SENDING : 0,
        // Nothing goes on from here to a line, so there is no RDM.
        goodOutputB: A.OUTPUT_RDM_DISABLED,
        swOut: portAddress & 0x0f,
      };
    }),
  }));
}

/** `#0001 [0042] text`: all is well (RcPowerOk), a counter that goes round, words (Art-Net 4, ArtPollReply, NodeReport). */
export const nodeReportText = (answered: number, text: string): string =>
  `#0001 [${String(answered % 10_000).padStart(4, '0')}] ${text}`;

/** Whether a poll is meant for a page: all are, unless it names a range of Port-Addresses (Art-Net 4, targeted mode). */
export function pollMeans({ flags, targetBottom, targetTop }: ArtPoll, page: Omit<ArtPollReply, 'kind'>): boolean {
  if (!(flags & POLL_TARGETED)) return true;
  return page.ports.slice(0, page.portCount).some(({ swOut }) => {
    const portAddress = (page.netSwitch << 8) | (page.subSwitch << 4) | swOut;
    return portAddress >= targetBottom && portAddress <= targetTop;
  });
}
