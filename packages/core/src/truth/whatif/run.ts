/** A time line played: what each port puts out, who has the say, and which lamps hold, fade, go dark and come back. */
import { integer, listOf, real, report, words, type ReportOf } from '../../base/field';
import { portsByUniverse } from '../../network/machine';
import type { Patch, PatchedLamp } from '../../rig/patch';
import type { ShowRecords } from '../../show/records';
import { portKey, portOfKey } from '../simulate';
import { Arrivals, Courses, STEP_MS, type Code, type Course } from './course';
import { epochsOf } from './epochs';
import { SECOND_DESK, type WhatIfEvent, type WhatIfWorld } from './event';

const span = report('', {
  from: real('s'),
  to: real('s'),
  state: words('In words: live, from others, held, fades, a stored look, full, dark, silent.'),
});

const sample = report('', {
  at: real('s'),
  lit: integer('Lamps that shine as before.'),
  changed: integer('That others have the say of.'),
  held: integer('That stand still.'),
  fading: integer(),
  dark: integer('That were lit and are dark.'),
  perhaps: integer('Dark if they hang on the one port and not on the other; which, is not known.'),
});

export const whatIfReport = report('WhatIf', {
  seconds: real(),
  stepSeconds: real(),
  sentence: words('The worst of it.'),
  samples: listOf(sample, 'One a step.'),
  effects: listOf(
    report('', {
      what: words('“Foredeck”'),
      lamps: integer(),
      lampIds: listOf(words()),
      spans: listOf(span),
      dark: real('Seconds in the dark, for each.'),
      says: words(),
    }),
    'The worst first.',
  ),
  ports: listOf(
    report('', {
      machineId: words(),
      port: integer(),
      name: words(),
      universe: integer('Show universe; 0 for none.'),
      spans: listOf(span),
      owners: listOf(report('', { from: real('s'), names: listOf(words()) })),
    }),
    'Those to which something happens.',
  ),
  lamps: listOf(report('', { id: words(), codes: words() }), 'A letter a step: L C H F K U D S P.'),
  assumes: listOf(words(), 'What was taken for granted.'),
});
export interface WhatIfReport extends ReportOf<typeof whatIfReport.fields> {}

export const CODE_WORDS: Readonly<Record<Code, string>> = {
  L: 'live',
  C: 'from others',
  H: 'held',
  F: 'fades',
  K: 'a stored look',
  U: 'full',
  D: 'dark',
  S: 'silent',
  P: 'perhaps dark',
};

/** Of several ports of which one may be the lamp’s, the worst counts. */
const WORST: readonly Code[] = ['S', 'D', 'F', 'H', 'K', 'U', 'C', 'L'];
const rank = new Map(WORST.map((code, i) => [code, i]));
export const isDark = (code: string | undefined): boolean => code === 'D' || code === 'S';

const lasting = (spans: ReturnType<typeof spansOf>, which: (code: string) => boolean): number =>
  spans.filter(({ code }) => which(code)).reduce((sum, { from, to }) => sum + to - from, 0);

/** Where some of its ports are dark and others are not, whether it is dark hangs on which is its own. */
const worstOf = (all: readonly string[]): string => {
  const [first, ...rest] = all as [string, ...string[]];
  if (rest.length === 0) return first;
  return [...first]
    .map((_, i) => {
      const here = all.map((codes) => codes[i] as Code);
      const dark = here.filter(isDark).length;
      if (dark > 0 && dark < here.length) return 'P';
      return here.sort((a, b) => rank.get(a)! - rank.get(b)!)[0]!;
    })
    .join('');
};

/** Stretches of one state, in words. */
export function spansOf(codes: string): { from: number; to: number; code: Code; state: string }[] {
  const found: { from: number; to: number; code: Code; state: string }[] = [];
  [...codes].forEach((one, i) => {
    const code = one as Code;
    const last = found[found.length - 1];
    const to = ((i + 1) * STEP_MS) / 1000;
    if (last?.code === code) last.to = to;
    else found.push({ from: (i * STEP_MS) / 1000, to, code, state: CODE_WORDS[code] });
  });
  return found;
}

/** Everything that is worked out of one base world, kept for many time lines. */
export class WhatIf {
  private readonly courses = new Courses();
  private readonly ports: ReadonlyMap<number, readonly string[]>;
  readonly lamps: readonly PatchedLamp[];

  constructor(
    readonly records: ShowRecords,
    readonly patch: Patch,
    readonly base: WhatIfWorld,
    /** The port on which a lamp was found to hang, by its id: of several that carry its universe, that one counts. */
    private readonly hangsOn: ReadonlyMap<string, string> = new Map(),
  ) {
    this.ports = portsByUniverse(records);
    this.lamps = patch.all();
  }

  /** Ports by which a lamp may be fed */
  portsOf({ lamp, spans }: PatchedLamp): readonly string[] {
    const all = [...new Set(spans.flatMap(({ universe }) => this.ports.get(universe) ?? []))];
    const own = this.hangsOn.get(lamp.id);
    return own !== undefined && all.includes(own) ? [own] : all;
  }

  /** Courses of ports, and codes of lamps, over so many seconds. `only`: ports that are looked at; all if left out */
  play(events: readonly WhatIfEvent[], seconds: number, only?: ReadonlySet<string>) {
    const stops = new Set(events.filter(({ kind }) => kind === 'stop').map(({ id }) => id));
    const epochs = epochsOf(this.base, events, this.records).map((epoch) => ({
      epoch,
      arrivals: new Arrivals(epoch.world),
      nodes: new Map(epoch.world.nodes.map((node) => [node.id, node])),
    }));
    const courses = new Map<string, Course>();
    for (const node of this.base.nodes)
      for (const { number } of node.ports) {
        const key = portKey(node.id, number);
        if (only && !only.has(key)) continue;
        const course = this.courses.of(node.id, number, epochs, seconds, stops);
        if (course) courses.set(key, course);
      }
    return { epochs, courses };
  }

  /** Codes of a lamp by those of its ports; undefined for one that nothing feeds. */
  codesOf(patched: PatchedLamp, { epochs, courses }: ReturnType<WhatIf['play']>): string | undefined {
    const keys = this.portsOf(patched).filter((key) => courses.has(key));
    if (keys.length === 0) return undefined;
    const cabled = keys.map((key) => {
      const { codes } = courses.get(key)!;
      return epochs.every(({ nodes }) => hasCable(nodes, key))
        ? codes
        : [...codes].map((code, i) => (hasCable(epochAt(epochs, i).nodes, key) ? code : 'S')).join('');
    });
    const codes = worstOf(cabled);
    const place = patched.lamp.placeId ?? '';
    if (epochs.every(({ epoch }) => !epoch.world.darkPlaces.has(place))) return codes;
    return [...codes].map((code, i) => (epochAt(epochs, i).epoch.world.darkPlaces.has(place) ? 'S' : code)).join('');
  }

  run(events: readonly WhatIfEvent[], seconds: number, assumes: readonly string[]): WhatIfReport {
    const played = this.play(events, seconds);
    const before = this.play([], 1);
    const lamps = this.lamps.flatMap((patched) => {
      const codes = this.codesOf(patched, played);
      const was = this.codesOf(patched, before)?.[0];
      // One that is dark from the begin loses nothing.
      return codes === undefined || isDark(was) ? [] : [{ patched, codes, was }];
    });
    const steps = lamps[0]?.codes.length ?? 0;
    const samples = Array.from({ length: steps }, (_, i) => {
      const count = (which: string) => lamps.filter(({ codes }) => which.includes(codes[i]!)).length;
      const at = (i * STEP_MS) / 1000;
      return {
        at,
        lit: count('L'),
        changed: count('C'),
        held: count('HKU'),
        fading: count('F'),
        dark: count('DS'),
        perhaps: count('P'),
      };
    });
    const effects = this.effectsOf(lamps);
    const [worst] = effects;
    return {
      seconds,
      stepSeconds: STEP_MS / 1000,
      sentence: worst ? `${worst.what}: ${worst.says}` : 'No lamp changes.',
      samples,
      effects,
      ports: this.portsTold(played, before),
      lamps: lamps.map(({ patched, codes }) => ({ id: patched.lamp.id, codes })),
      assumes,
    };
  }

  private effectsOf(
    lamps: readonly { patched: PatchedLamp; codes: string; was: string | undefined }[],
  ): WhatIfReport['effects'] {
    const places = new Map(this.records.place.map(({ id, name }) => [id, name]));
    const groups = new Map<string, { place: string; codes: string; ids: string[] }>();
    for (const { patched, codes, was } of lamps) {
      if ([...codes].every((code) => code === was)) continue;
      const place = patched.lamp.placeId ?? '';
      const group = groups.get(`${place} ${codes}`) ?? { place, codes, ids: [] };
      groups.set(`${place} ${codes}`, group);
      group.ids.push(patched.lamp.id);
    }
    return [...groups.values()]
      .map(({ place, codes, ids }) => {
        const spans = spansOf(codes);
        const dark = lasting(spans, isDark);
        return {
          what: places.get(place) ?? 'No place',
          lamps: ids.length,
          lampIds: ids,
          spans: spans.map(({ from, to, state }) => ({ from, to, state })),
          dark: Math.round(dark * 10) / 10,
          perhaps: lasting(spans, (code) => code === 'P'),
          says: `${ids.length} lamp${ids.length === 1 ? '' : 's'} ${saysOf(spans)}.`,
        };
      })
      .sort(
        (a, b) => b.dark * b.lamps - a.dark * a.lamps || b.perhaps * b.lamps - a.perhaps * a.lamps || b.lamps - a.lamps,
      )
      .map(({ perhaps: _, ...effect }) => effect);
  }

  private nameOf = (id: string): string =>
    id === SECOND_DESK ? 'A second desk' : (this.records.machine.find((one) => one.id === id)?.name ?? id);

  private portsTold(
    { courses }: ReturnType<WhatIf['play']>,
    before: ReturnType<WhatIf['play']>,
  ): WhatIfReport['ports'] {
    const machines = new Map(this.records.machine.map((one) => [one.id, one]));
    const universes = new Map<string, number>();
    for (const [universe, keys] of this.ports) for (const key of keys) universes.set(key, universe);
    return [...courses].flatMap(([key, { codes, owners }]) => {
      const was = before.courses.get(key)?.codes[0];
      if ([...codes].every((code) => code === was)) return [];
      const { nodeId: machineId, port } = portOfKey(key);
      return [
        {
          ...{ machineId, port, name: machines.get(machineId)?.name ?? machineId, universe: universes.get(key) ?? 0 },
          spans: spansOf(codes).map(({ from, to, state }) => ({ from, to, state })),
          owners: owners.map(({ from, ids }) => ({ from, names: ids.map(this.nameOf) })),
        },
      ];
    });
  }
}

type Played = ReturnType<WhatIf['play']>;

const epochAt = (epochs: Played['epochs'], step: number): Played['epochs'][number] => {
  const at = (step * STEP_MS) / 1000;
  return epochs.findLast(({ epoch }) => epoch.from <= at) ?? epochs[0]!;
};

const hasCable = (nodes: Played['epochs'][number]['nodes'], key: string): boolean => {
  const { nodeId, port } = portOfKey(key);
  return nodes.get(nodeId)?.ports.find(({ number }) => number === port)?.cable ?? false;
};

const PERHAPS = 'perhaps dark (two ports carry their universe; on which they hang is not known)';

/** “held from 2.4 s, dark from 12.4 s, live again from 31 s” */
function saysOf(spans: ReturnType<typeof spansOf>): string {
  const parts = spans
    .filter(({ code, from }) => code !== 'L' || from > 0)
    .map(({ code, state, from }) => {
      const word = code === 'L' ? 'live again' : code === 'S' ? 'without signal' : code === 'P' ? PERHAPS : state;
      return from === 0 ? `${word} at once` : `${word} from ${Math.round(from * 10) / 10} s`;
    });
  return parts.join(', ');
}
