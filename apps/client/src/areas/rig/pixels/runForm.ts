/** A run of pixels as text fields, and back. */
import { formatAddress, readAddress } from '@taxiarch/core/base/address';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { checkRecord, type PixelRun, type Point } from '@taxiarch/core/show/records';
import { metresFrom, wholeFrom } from '@/data/numbers';

export interface RunForm {
  readonly number: string;
  readonly name: string;
  readonly count: string;
  readonly order: string;
  readonly bits: '8' | '16';
  readonly perUniverse: '510' | '512';
  readonly whole: boolean;
  readonly start: PixelRun['start']['kind'];
  readonly at: string;
  readonly reversed: boolean;
  readonly nulls: string;
  readonly nullsSent: boolean;
  readonly machineId: string;
  readonly output: string;
  readonly placeId: string;
  /** `x, y, z` in metres */
  readonly from: string;
  readonly to: string;
}

const pointText = ({ x, y, z }: Point): string => [x, y, z].join('; ');

function readPoint(text: string, what: string): Result<Point> {
  const [x, y, z, ...more] = text.split(';').map(metresFrom);
  if (x === undefined || y === undefined || z === undefined || more.length > 0)
    return refuse('not-understood', `${what}: write three numbers of metres, as in 1.5; 20; 6.`);
  return ok({ x, y, z });
}

export const runForm = (run: PixelRun): RunForm => ({
  number: String(run.number),
  name: run.name,
  count: String(run.count),
  order: run.order,
  bits: String(run.bits) as RunForm['bits'],
  perUniverse: String(run.perUniverse) as RunForm['perUniverse'],
  whole: run.whole,
  start: run.start.kind,
  at: run.start.kind === 'at' ? formatAddress(run.start) : '1/1',
  reversed: run.reversed,
  nulls: String(run.nulls),
  nullsSent: run.nullsSent,
  machineId: run.machineId ?? '',
  output: run.output === null ? '' : String(run.output),
  placeId: run.placeId ?? '',
  from: pointText(run.from),
  to: pointText(run.to),
});

export const newRun = (id: string, number: number): PixelRun => ({
  id,
  rev: 0,
  number,
  name: '',
  count: 60,
  order: 'RGB',
  bits: 8,
  perUniverse: 510,
  whole: true,
  start: { kind: 'after' },
  reversed: false,
  nulls: 0,
  nullsSent: false,
  machineId: null,
  output: null,
  placeId: null,
  from: { x: 0, y: 0, z: 3 },
  to: { x: 4, y: 0, z: 3 },
});

export function readRunForm(form: RunForm, base: Pick<PixelRun, 'id' | 'rev'>): Result<PixelRun> {
  const at = readAddress(form.at);
  if (form.start === 'at' && !at.ok) return at;
  const from = readPoint(form.from, 'First pixel');
  if (!from.ok) return from;
  const to = readPoint(form.to, 'Last pixel');
  if (!to.ok) return to;
  const number = (text: string) => wholeFrom(text) ?? NaN;
  const run: PixelRun = {
    id: base.id,
    rev: base.rev,
    number: number(form.number),
    name: form.name.trim(),
    count: number(form.count),
    order: form.order.trim().toUpperCase(),
    bits: form.bits === '16' ? 16 : 8,
    perUniverse: form.perUniverse === '512' ? 512 : 510,
    whole: form.whole,
    start:
      form.start === 'at' && at.ok
        ? { kind: 'at', ...at.value }
        : { kind: form.start === 'controller' ? 'controller' : 'after' },
    reversed: form.reversed,
    nulls: number(form.nulls),
    nullsSent: form.nullsSent,
    machineId: form.machineId || null,
    output: form.output.trim() === '' ? null : number(form.output),
    placeId: form.placeId || null,
    from: from.value,
    to: to.value,
  };
  const checked = checkRecord('run', run);
  return checked.ok ? ok(run) : refuse('not-understood', checked.why);
}
