/** Which of a sender's universes arrive as which of a visualiser's, and where both lie on the wire. */
import type { NumberingBase, WireUniverse } from '../../base/address';
import { linesWith, sentTo, type Sender } from '../../network/flow';
import type { Link, Universe } from '../../show/records';

export interface LinkedUniverse {
  readonly universe: number;
  /** Where the sender sends it; undefined if it does not */
  readonly sent: WireUniverse | undefined;
  /** Where the visualiser's own number lies on the wire */
  readonly heard: WireUniverse;
}

/** Where a visualiser's own number lies on the wire: sACN has one counting, Art-Net what its display begins with. */
export const receiverWire = ({ protocol, receiverBase }: Link, number: number): WireUniverse => ({
  protocol,
  number: protocol === 'sacn' ? number : number - receiverBase,
});

/** What a display calls a universe of the wire: Art-Net's count from its base, sACN's is one for all. */
export const shownAs = ({ protocol, number }: WireUniverse, base: NumberingBase): number =>
  protocol === 'sacn' ? number : number + base;

export function linkedUniverses(link: Link, sender: Sender, universes: readonly Universe[]): LinkedUniverse[] {
  const planned = new Map(universes.map((one) => [one.number, one]));
  return link.lines.flatMap(({ from, count, to }) =>
    Array.from({ length: count }, (_, i) => {
      const universe = from + i;
      const ways = linesWith(sender, universe).map((line) => sentTo(line, universe, planned.get(universe)));
      return {
        universe,
        sent: ways.find((way) => way?.protocol === link.protocol) ?? ways[0],
        heard: receiverWire(link, to + i),
      };
    }),
  );
}

/** Lines of a link one to one: everything that the sender sends by the protocol, under its show number. */
export function proposeLines(
  sender: Sender,
  protocolWanted: Link['protocol'],
  universes: readonly Universe[],
): Link['lines'] {
  const planned = new Map(universes.map((one) => [one.number, one]));
  const lines: { from: number; count: number; to: number }[] = [];
  for (const line of sender.lines) {
    if (!line.on) continue;
    for (let i = 0; i < line.count; i += 1) {
      const universe = line.from + i;
      if (sentTo(line, universe, planned.get(universe))?.protocol !== protocolWanted) continue;
      const last = lines[lines.length - 1];
      if (last && last.from + last.count === universe) last.count += 1;
      else lines.push({ from: universe, count: 1, to: universe });
    }
  }
  return lines;
}
