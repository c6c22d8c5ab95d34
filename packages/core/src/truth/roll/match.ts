/**
 * Brings lamps of the plan and lamps that answered together: by UID where it is known, else by port, address, mode and
 * type, each step with what it rests on. What is not sure is said to be likely, and what is neither is left open.
 */
import type { PatchedLamp } from '../../rig/patch';
import { couldBe, sameType } from './compare';
import type { SeenLamp } from './seen';

export type Confidence = 'known' | 'sure' | 'likely';

export interface Match {
  readonly seen: SeenLamp;
  readonly confidence: Confidence;
  /** What it rests on, in words */
  readonly because: string;
}

export interface Pairing {
  readonly matches: ReadonlyMap<PatchedLamp, Match>;
  readonly strangers: readonly SeenLamp[];
}

/** Whether a port carries the universe that a lamp is patched on. */
export type OnPort = (patched: PatchedLamp, seen: SeenLamp) => boolean;

/** Of two lists, the pairs that find only each other. */
function* onlyEach<A, B>(as: Iterable<A>, fitting: (a: A) => readonly B[]): Generator<readonly [A, B]> {
  const wanted = new Map<B, A[]>();
  for (const a of as) {
    const found = fitting(a);
    const [b, ...more] = found;
    if (b === undefined || more.length > 0) continue;
    wanted.set(b, [...(wanted.get(b) ?? []), a]);
  }
  for (const [b, some] of wanted) if (some.length === 1) yield [some[0]!, b];
}

const NUMBER = /\d+/g;
const namedBy = ({ lamp }: PatchedLamp, { label }: SeenLamp): boolean =>
  label !== '' && (label === lamp.name || new Set<string>(label.match(NUMBER)).has(String(lamp.number)));

interface Step {
  readonly confidence: Confidence;
  readonly because: string;
  /** Only those come into question that stand at the planned address; otherwise those of its type */
  readonly byAddress: boolean;
  readonly fits: (patched: PatchedLamp, seen: SeenLamp, onPort: boolean) => boolean;
}

const addressed = ({ lamp }: PatchedLamp, { startAddress }: SeenLamp): boolean => startAddress === lamp.channel;

/** In this order; each looks only at what those before left over. */
const STEPS: readonly Step[] = [
  {
    confidence: 'sure',
    because: 'port, address, mode and type agree',
    byAddress: true,
    fits: (patched, seen, onPort) =>
      onPort && addressed(patched, seen) && seen.slots === patched.footprint && sameType(patched, seen),
  },
  {
    confidence: 'likely',
    because: 'its label says so, and the type agrees',
    byAddress: false,
    fits: (patched, seen) => namedBy(patched, seen) && sameType(patched, seen),
  },
  {
    confidence: 'likely',
    because: 'port, address and type agree; its mode is another',
    byAddress: true,
    fits: (patched, seen, onPort) => onPort && addressed(patched, seen) && sameType(patched, seen),
  },
  {
    confidence: 'likely',
    because: 'port, address and number of slots agree; its type has another name',
    byAddress: true,
    fits: (patched, seen, onPort) =>
      onPort && addressed(patched, seen) && seen.slots === patched.footprint && couldBe(patched, seen),
  },
  {
    confidence: 'likely',
    because: 'address, mode and type agree; it hangs on another port',
    byAddress: true,
    fits: (patched, seen) => addressed(patched, seen) && seen.slots === patched.footprint && sameType(patched, seen),
  },
  {
    confidence: 'likely',
    because: 'no other of its type is left on this port',
    byAddress: false,
    fits: (patched, seen, onPort) => onPort && sameType(patched, seen),
  },
];

/** `lamps`: those of the plan, without runs of pixels. */
export function pair(lamps: readonly PatchedLamp[], seen: readonly SeenLamp[], onPort: OnPort): Pairing {
  const matches = new Map<PatchedLamp, Match>();
  const free = new Set(seen);
  const byUid = new Map(seen.map((one) => [one.uid, one]));
  for (const patched of lamps) {
    const its = patched.lamp.uid === '' ? undefined : byUid.get(patched.lamp.uid);
    if (!its || !free.has(its)) continue;
    matches.set(patched, { seen: its, confidence: 'known', because: 'its UID is known' });
    free.delete(its);
  }
  const owners = new Set(lamps.map(({ lamp }) => lamp.uid).filter((uid) => uid !== ''));
  // One whose UID is another lamp's is nobody else; one whose UID is known is found by nothing but that.
  const open = () => lamps.filter((one) => !matches.has(one) && one.lamp.uid === '');
  for (const { confidence, because, byAddress, fits } of STEPS) {
    const rest = [...free].filter(({ uid, says }) => says === 'all' && !owners.has(uid));
    if (rest.length === 0) break;
    const near = nearby(rest, byAddress);
    const fitting = (a: PatchedLamp) => near(a).filter((b) => fits(a, b, onPort(a, b)));
    for (const [patched, one] of onlyEach(open(), fitting)) {
      matches.set(patched, { seen: one, confidence, because });
      free.delete(one);
    }
  }
  return { matches, strangers: [...free] };
}

/** Those that come into question at a first look, so that thousands of lamps are not each held against thousands. */
function nearby(seen: readonly SeenLamp[], byAddress: boolean): (patched: PatchedLamp) => readonly SeenLamp[] {
  const byKey = new Map<unknown, SeenLamp[]>();
  if (byAddress) {
    for (const one of seen) byKey.set(one.startAddress, [...(byKey.get(one.startAddress) ?? []), one]);
    return ({ lamp }) => byKey.get(lamp.channel) ?? [];
  }
  return (patched) => {
    const there = byKey.get(patched.type) ?? seen.filter((one) => sameType(patched, one));
    byKey.set(patched.type, there);
    return there;
  };
}
