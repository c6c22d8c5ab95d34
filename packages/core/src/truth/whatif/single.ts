/** Every single failure, and pairs of them: how much light each costs, for how long, and what would save it. */
import { integer, listOf, real, report, words, type ReportOf } from '../../base/field';
import { wireKey } from '../../base/address';
import { countOf } from '../../show/edit';
import type { ShowRecords } from '../../show/records';
import { portKey, sentBy } from '../simulate';
import { STEP_MS } from './course';
import type { WhatIfEvent } from './event';
import { isDark, type WhatIf } from './run';

export const failureRow = report('Failure', {
  key: words(),
  what: words('“The cable of Boiler node”'),
  kind: words(),
  machineIds: listOf(words()),
  dark: integer('Lamps that are dark for a time.'),
  darkSeconds: real('Lamp-seconds in the dark, of the time that was looked at.'),
  perhaps: integer('Lamps that are dark if they hang on the one port and not on the other.'),
  held: integer('Lamps that stand still.'),
  changed: integer('Lamps that others have the say of.'),
});
export interface FailureRow extends ReportOf<typeof failureRow.fields> {}

/** “54 lamps dark, 30 s of 30 each; 12 held” */
export const costText = ({ dark, darkSeconds, perhaps, held, changed }: FailureRow): string =>
  [
    dark > 0 ? `${countOf(dark, 'lamp')} dark, ${Math.round(darkSeconds / dark)} s of ${FAILURE_S} each` : '',
    perhaps > 0 ? `${perhaps} perhaps dark` : '',
    held > 0 ? `${held} held` : '',
    changed > 0 ? `${changed} from others` : '',
  ]
    .filter(Boolean)
    .join('; ');

export interface Failure {
  readonly key: string;
  readonly what: string;
  readonly event: WhatIfEvent;
}

/** Looked at for so long, s */
export const FAILURE_S = 30;

const event = (kind: WhatIfEvent['kind'], id: string, port = 0): WhatIfEvent => ({
  kind,
  id,
  port,
  at: 0,
  lasts: 0,
  amount: 0,
});

/** Each cable, machine, interface and sender that can fail by itself. */
export function singleFailures({ machine }: ShowRecords, { base }: WhatIf): Failure[] {
  const nodes = new Map(base.nodes.map((one) => [one.id, one]));
  const senders = new Set(base.senders.map(({ id }) => id));
  return machine.flatMap(({ id, name }): Failure[] => {
    const node = nodes.get(id);
    if (!node && !senders.has(id)) return [];
    const made = (kind: WhatIfEvent['kind'], what: string, port = 0): Failure => ({
      key: `${kind} ${id} ${port}`,
      what,
      event: event(kind, id, port),
    });
    return [
      made('cable', `The network cable of ${name}`),
      made('power', `The power of ${name}`),
      ...(senders.has(id) ? [made('freeze', `${name} freezes`)] : []),
      ...(node?.ports ?? [])
        .filter(({ use }) => use === 'out')
        .map(({ number }) => made('port cable', `The DMX cable of ${name}, port ${number}`, number)),
    ];
  });
}

/** Ports to which a failure can do anything: those of its machine, and those that its machine feeds. */
function touchedBy({ base }: WhatIf): (failure: Failure) => ReadonlySet<string> {
  const takes = new Map<number, string[]>();
  for (const node of base.nodes)
    for (const { number, use, protocol, wire } of node.ports) {
      if (use !== 'out') continue;
      const key = wireKey({ protocol, number: wire });
      takes.set(key, [...(takes.get(key) ?? []), portKey(node.id, number)]);
    }
  const feeds = new Map<string, Set<string>>();
  for (const sender of base.senders) {
    const its = feeds.get(sender.id) ?? new Set<string>();
    feeds.set(sender.id, its);
    for (const stream of sentBy(base, sender)) for (const port of takes.get(wireKey(stream.wire)) ?? []) its.add(port);
    // A desk on a DMX cable falls silent with the node that it is plugged into.
    if (sender.through) {
      const through = feeds.get(sender.through.nodeId) ?? new Set<string>();
      feeds.set(sender.through.nodeId, through);
      for (const port of its) through.add(port);
    }
  }
  const own = new Map(base.nodes.map((node) => [node.id, node.ports.map(({ number }) => portKey(node.id, number))]));
  return ({ event: { kind, id, port } }) =>
    new Set(kind === 'port cable' ? [portKey(id, port)] : [...(own.get(id) ?? []), ...(feeds.get(id) ?? [])]);
}

export interface Progress {
  readonly done: number;
  readonly of: number;
}

/** Lamps by the ports that may feed them. */
function lampsByPort(whatIf: WhatIf): (ports: ReadonlySet<string>) => WhatIf['lamps'] {
  const found = new Map<string, Set<WhatIf['lamps'][number]>>();
  for (const patched of whatIf.lamps)
    for (const key of whatIf.portsOf(patched)) found.set(key, (found.get(key) ?? new Set()).add(patched));
  return (ports) => [...new Set([...ports].flatMap((key) => [...(found.get(key) ?? [])]))];
}

interface Cost {
  readonly dark: number;
  readonly darkSeconds: number;
  readonly perhaps: number;
  readonly held: number;
  readonly changed: number;
}

/**
 * Plays each failure on what it can touch, and, if wished, each two that touch a common port; others only add up. The
 * generator tells how far it is after every few.
 */
export function* tryFailures(whatIf: WhatIf, pairs: boolean): Generator<Progress, FailureRow[]> {
  const failures = singleFailures(whatIf.records, whatIf);
  const touched = touchedBy(whatIf);
  const lampsOn = lampsByPort(whatIf);
  const before = whatIf.play([], 1);
  const litBefore = new Map(whatIf.lamps.map((one) => [one, !isDark(whatIf.codesOf(one, before)?.[0] ?? 'S')]));
  const costOf = (events: readonly WhatIfEvent[], ports: ReadonlySet<string>): Cost => {
    const lamps = lampsOn(ports).filter((one) => litBefore.get(one));
    // A lamp may hang on other ports too: these count as well.
    const all = new Set([...ports, ...lamps.flatMap((one) => whatIf.portsOf(one))]);
    const played = whatIf.play(events, FAILURE_S, all);
    let [dark, darkSteps, perhaps, held, changed] = [0, 0, 0, 0, 0];
    for (const patched of lamps) {
      const codes = whatIf.codesOf(patched, played);
      if (codes === undefined) continue;
      const darkOf = [...codes].filter((code) => isDark(code)).length;
      darkSteps += darkOf;
      if (darkOf > 0) dark += 1;
      else if (codes.includes('P')) perhaps += 1;
      else if (/[HKUF]/.test(codes)) held += 1;
      else if (codes.includes('C')) changed += 1;
    }
    return { dark, darkSeconds: Math.round((darkSteps * STEP_MS) / 1000), perhaps, held, changed };
  };
  const two = pairs ? [...commonPairs(failures, touched)] : [];
  const of = failures.length + two.length;
  const rows: FailureRow[] = [];
  let done = 0;
  for (const failure of failures) {
    const { key, what, event: its } = failure;
    rows.push({ key, what, kind: its.kind, machineIds: [its.id], ...costOf([its], touched(failure)) });
    done += 1;
    if (done % TOLD === 0) yield { done, of };
  }
  const alone = new Map(rows.map((row) => [row.key, row]));
  for (const [a, b] of two) {
    const cost = costOf([a.event, b.event], new Set([...touched(a), ...touched(b)]));
    const [one, other] = [alone.get(a.key)!, alone.get(b.key)!];
    // Two that cost no more together than apart are no news.
    if (cost.darkSeconds > one.darkSeconds + other.darkSeconds)
      rows.push({
        ...{ key: `${a.key} + ${b.key}`, what: `${a.what}, and ${lower(b.what)}`, kind: 'pair' },
        ...{ machineIds: [a.event.id, b.event.id], ...cost },
      });
    done += 1;
    if (done % TOLD === 0) yield { done, of };
  }
  return rows
    .filter(({ dark, perhaps, held, changed }) => dark + perhaps + held + changed > 0)
    .sort(
      (a, b) =>
        b.darkSeconds - a.darkSeconds ||
        b.dark - a.dark ||
        b.perhaps - a.perhaps ||
        b.held - a.held ||
        b.changed - a.changed,
    );
}

const TOLD = 20;
const lower = (text: string): string => (text.startsWith('The ') ? `t${text.slice(1)}` : text);

/** Two failures of different machines that touch a common port. */
function* commonPairs(
  failures: readonly Failure[],
  touched: (failure: Failure) => ReadonlySet<string>,
): Generator<readonly [Failure, Failure]> {
  // Of one machine, losing its power says all that losing its cable does.
  const some = failures.filter(({ event: { kind } }) => kind === 'power' || kind === 'port cable');
  const sets = some.map(touched);
  const byPort = new Map<string, number[]>();
  sets.forEach((ports, i) => ports.forEach((port) => byPort.set(port, [...(byPort.get(port) ?? []), i])));
  const seen = new Set<number>();
  for (const together of byPort.values())
    for (const a of together)
      for (const b of together) {
        if (a >= b || some[a]!.event.id === some[b]!.event.id || seen.has(a * some.length + b)) continue;
        seen.add(a * some.length + b);
        yield [some[a]!, some[b]!];
      }
}
