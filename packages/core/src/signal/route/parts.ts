/** Ranges of a route set by hand, taken from an input, and given back; a slot lies in one part at most. */
import type { RoutePart, RouteWay } from './way';

/** Parts without the slots `first` to `last`: those that reach over are cut, their levels and sources going on. */
export function giveBackRange(parts: readonly RoutePart[], first: number, last: number): RoutePart[] {
  return parts.flatMap((part) => {
    if (part.last < first || part.first > last) return [part];
    const from = (begin: number) =>
      part.from && { wire: part.from.wire, channel: part.from.channel + begin - part.first };
    return [
      ...(part.first < first ? [{ ...part, last: first - 1 }] : []),
      ...(part.last > last ? [{ ...part, first: last + 1, from: from(last + 1) }] : []),
    ];
  });
}

/** Parts with one more, which takes its slots from those that had them. */
export const setRange = (parts: readonly RoutePart[], part: RoutePart): RoutePart[] =>
  [...giveBackRange(parts, part.first, part.last), part].sort((a, b) => a.first - b.first);

/** `1-12 held at 128`, `13-24 from sACN 41, channel 1`. */
export function partText(
  { first, last, by, level, from }: RoutePart,
  wireText: (wire: NonNullable<RoutePart['from']>['wire']) => string,
): string {
  const run = first === last ? String(first) : `${first}-${last}`;
  return by === 'hand' ? `${run} held at ${level}` : `${run} from ${wireText(from!.wire)}, channel ${from!.channel}`;
}

/** What a route does, in one sentence. */
export function routeText(
  { inputs, out, merge, parts }: RouteWay,
  wireText: (wire: RouteWay['out']) => string,
): string {
  const from = inputs
    .map(({ wire, sender, shift }) =>
      [wireText(wire), sender && `of ${sender}`, shift !== 0 && `moved by ${shift > 0 ? '+' : ''}${shift}`]
        .filter(Boolean)
        .join(' '),
    )
    .join(merge === 'backup' ? ', else ' : ' and ');
  const how =
    inputs.length > 1 && merge !== 'backup'
      ? `, merged ${merge === 'priority' ? 'by priority' : merge.toUpperCase()}`
      : '';
  const held = parts.length === 0 ? '' : `; ${parts.map((part) => partText(part, wireText)).join(', ')}`;
  return `${from}${how} → ${wireText(out)}${held}`;
}
