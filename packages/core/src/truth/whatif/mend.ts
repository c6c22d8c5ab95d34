/** What would take a single point of failure away, each as an edit of the plan that is looked at before it is written. */
import { wireKey } from '../../base/address';
import { changed, countOf, type Plan } from '../../show/edit';
import { linesWith, sendersOf, universesOf } from '../../network/flow';
import { lossText } from '../../network/machine';
import type { Machine, ShowRecords } from '../../show/records';
import { sentBy } from '../simulate';
import type { Failure } from './single';
import type { WhatIf } from './run';

export interface Mend {
  /** What it is, in a sentence */
  readonly says: string;
  /** Null where the plan cannot do it: things must be bought, or moved */
  readonly plan: Plan | null;
}

/** So far below the first a backup is, in sACN’s priorities. */
const BELOW = 10;

/** Another sender that sends the same at a lower priority: the one that sends the most of it already. */
function backups(failure: Failure, records: ShowRecords): Mend[] {
  const senders = sendersOf(records.machine);
  const lost = senders.find(({ id }) => id === failure.event.id);
  if (!lost) return [];
  const universes = universesOf(lost);
  const others = senders
    .filter(({ id, machine: { kind } }) => id !== lost.id && kind === lost.machine.kind)
    .map((one) => ({ one, has: new Set(universesOf(one)) }))
    .sort((a, b) => universes.filter((n) => b.has.has(n)).length - universes.filter((n) => a.has.has(n)).length);
  const [best] = others;
  if (!best) return [{ says: `A second desk like ${lost.name} would take over. The show has none.`, plan: null }];
  const byNumber = new Map(records.universe.map((one) => [one.number, one]));
  const missing = universes.filter((n) => !best.has.has(n));
  const sacn = missing.filter((n) => byNumber.get(n)?.protocol === 'sacn');
  const rest = missing.length - sacn.length;
  const mends: Mend[] = [];
  if (sacn.length > 0) {
    const { machine } = best.one;
    const lines = sacn.flatMap((universe) =>
      linesWith(lost, universe)
        .slice(0, 1)
        .map((line) => ({
          ...line,
          ...{ from: universe, count: 1, to: null, interface: '', priority: Math.max(1, line.priority - BELOW) },
          note: `Backup of ${lost.name}`,
        })),
    );
    const after: Machine = { ...machine, sends: { ...machine.sends!, lines: [...machine.sends!.lines, ...lines] } };
    mends.push({
      says: `${best.one.name} sends the same ${countOf(sacn.length, 'universe')} as a backup, at a lower priority.`,
      plan: {
        sentence: `${best.one.name} backs up ${lost.name} on ${countOf(sacn.length, 'universe')}`,
        changes: [changed('machine', machine, after)],
        lines: [
          {
            subject: best.one.name,
            before: countOf(best.has.size, 'universe'),
            after: countOf(best.has.size + sacn.length, 'universe'),
          },
        ],
      },
    });
  }
  if (rest > 0)
    mends.push({
      says: `${countOf(rest, 'universe')} of ${lost.name} ${rest === 1 ? 'goes' : 'go'} by Art-Net, which has no priority: a backup there must be switched over by hand or by a route of Taxiarch’s.`,
      plan: null,
    });
  return mends;
}

/** Ports that go dark when their signal is lost, set to hold instead. */
function holding(failure: Failure, whatIf: WhatIf): Mend[] {
  const { records, base } = whatIf;
  const lost = base.senders.find(({ id }) => id === failure.event.id);
  if (!lost) return [];
  const keys = new Set(sentBy(base, lost).map(({ wire }) => wireKey(wire)));
  const changes = records.machine.flatMap((machine) => {
    const node = base.nodes.find(({ id }) => id === machine.id);
    const dark = new Set(
      node?.ports
        .filter(
          ({ use, protocol, wire, loss }) =>
            use === 'out' && keys.has(wireKey({ protocol, number: wire })) && loss.kind !== 'hold',
        )
        .map(({ number }) => number),
    );
    const ports = machine.ports.map((port) =>
      dark.has(port.number) && port.copyOf === null
        ? { ...port, loss: { kind: 'hold' as const, after: 0, over: 0 } }
        : port,
    );
    return ports.some((port, i) => port !== machine.ports[i]) ? [{ machine, after: { ...machine, ports } }] : [];
  });
  if (changes.length === 0) return [];
  return [
    {
      says: `${countOf(changes.length, 'node')} hold the last look when ${lost.name} is lost, instead of going dark.`,
      plan: {
        sentence: `Ports hold the last look when ${lost.name} is lost`,
        changes: changes.map(({ machine, after }) => changed('machine', machine, after)),
        lines: changes.map(({ machine, after }) => ({
          subject: machine.name,
          before: lossesText(machine),
          after: lossesText(after),
        })),
      },
    },
  ];
}

const lossesText = ({ ports }: Machine): string =>
  [...new Set(ports.filter(({ use }) => use === 'out').map(({ loss }) => lossText(loss)))].join('; ');

export function mendsOf(failure: Failure, whatIf: WhatIf): Mend[] {
  const { kind, id } = failure.event;
  const name = whatIf.records.machine.find((one) => one.id === id)?.name ?? id;
  const node = whatIf.base.nodes.some((one) => one.id === id);
  const mends = [...holding(failure, whatIf), ...backups(failure, whatIf.records)];
  if (node && kind === 'cable')
    mends.push({ says: `A second interface of ${name} on a cable of its own, if its model has one.`, plan: null });
  if (node && kind === 'power')
    mends.push({ says: `A second node on the same universes, or a supply for ${name} that lasts.`, plan: null });
  if (kind === 'port cable')
    mends.push({ says: 'Shorter chains, or half of the lamps on another port: then half of them stay.', plan: null });
  return mends;
}
