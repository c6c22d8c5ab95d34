import type { Loose, Step } from './step';

/** A machine as it was planned then, with everything that came with version 3 as it is at first. */
const MACHINE = {
  modelId: null,
  placeId: null,
  firmware: '',
  mode: '',
  serial: '',
  locked: false,
  ticks: [],
} as const;
const PORT = {
  label: '',
  fixed: 255,
  rate: 40,
  rdm: false,
  copyOf: null,
  merge: 'htp',
  loss: { kind: 'hold', after: 0, over: 0 },
  start: 'wait',
  priority: 100,
} as const;

/** Machines had one address, a model in words, and ports that were `out` or `in` and no more. */
export const to3: Step = {
  to: 3,
  record(kind, old) {
    if (kind !== 'machine') return old;
    const { model = '', address = '', ports = [], controller = null, ...rest } = old;
    return {
      ...MACHINE,
      kind: controller === null ? 'node' : 'pixel controller',
      notes: model,
      controller,
      interfaces: [{ name: '', mac: '', addresses: address === '' ? [] : [{ way: 'fixed', address, prefix: 8 }] }],
      ports: (ports as Loose[]).map(({ direction, ...port }) => ({ ...PORT, use: direction, ...port })),
      ...rest,
    };
  },
};
