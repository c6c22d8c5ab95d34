/** The shapes of what the API takes and gives, as OpenAPI 3.1 wants them. The types are those of `packages/core/src/contract`. */
import { FIXTURE_KINDS } from '@taxiarch/core/fixture';
import { KINDS, TAGS } from '@taxiarch/core/show';

export const text = { type: 'string' } as const;
const whole = { type: 'integer' } as const;
const number = { type: 'number' } as const;
const yesNo = { type: 'boolean' } as const;
const list = (items: object) => ({ type: 'array', items });
const map = (values: object) => ({ type: 'object', additionalProperties: values });
export const named = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const oneOf = (...words: string[]) => ({ type: 'string', enum: words });
const nullable = (schema: { type: string }) => ({ ...schema, type: [schema.type, 'null'] });

/** All properties required but those whose name ends in a question mark. */
function record(properties: Record<string, object>, description?: string) {
  const entries = Object.entries(properties).map(([name, schema]) => [name.replace('?', ''), schema] as const);
  const required = Object.keys(properties).filter((name) => !name.endsWith('?'));
  return { type: 'object', ...(description && { description }), properties: Object.fromEntries(entries), required };
}

const protocol = oneOf('sacn', 'artnet');
const keptFile = nullable({ ...text, description: 'SHA-256 of a kept file, in hexadecimal.' } as { type: string });
const address = record({ universe: whole, channel: whole });
const point = record({ x: number, y: number, z: number });
const row = { id: text, rev: { ...whole, description: 'Number of the edit that last changed this record.' } };

export const schemas = {
  Problem: record(
    {
      type: text,
      title: text,
      status: whole,
      detail: { ...text, description: 'A sentence fit to be shown.' },
      'faults?': list(record({ at: text, why: text })),
      'conflicts?': list({ type: 'object' }),
    },
    'RFC 9457 problem document.',
  ),
  ShowInfo: record({ ...row, name: text, about: text, file: keptFile }),
  Place: record({ ...row, name: text, order: whole }),
  FixtureType: record({
    ...row,
    maker: text,
    name: text,
    kind: oneOf(...FIXTURE_KINDS),
    file: keptFile,
    modes: list(
      record({
        name: text,
        channels: list(
          record({
            attribute: { ...text, description: 'GDTF attribute name.' },
            offsets: list(whole),
            default: whole,
            highlight: whole,
            'cell?': whole,
            'block?': whole,
            'ranges?': list(record({ name: text, from: whole, to: whole })),
          }),
        ),
      }),
    ),
  }),
  Universe: record({
    ...row,
    number: whole,
    name: text,
    protocol,
    wire: { ...whole, description: 'sACN 1–63999, Art-Net Port-Address 0–32767.' },
    merge: oneOf('htp', 'ltp'),
  }),
  Lamp: record({
    ...row,
    number: whole,
    name: text,
    typeId: text,
    mode: text,
    universe: whole,
    channel: whole,
    blocks: list(address),
    placeId: nullable(text),
    groups: list(text),
    tag: oneOf(...TAGS),
    twin: nullable(text),
    locked: yesNo,
    x: number,
    y: number,
    z: number,
  }),
  Source: record({
    ...row,
    name: text,
    address: text,
    universes: list(whole),
    priority: whole,
    pennant: record({ letter: text, cut: text, fill: text }),
  }),
  Machine: record({
    ...row,
    name: text,
    model: text,
    address: text,
    placeId: nullable(text),
    controller: {
      oneOf: [
        record({ firstUniverse: whole, universes: whole, outputs: whole, channelsPerOutput: whole }),
        { type: 'null' },
      ],
    },
    ports: list(record({ number: whole, direction: oneOf('out', 'in'), protocol, universe: whole })),
  }),
  PixelRun: record({
    ...row,
    number: whole,
    name: text,
    count: whole,
    order: { ...text, description: 'Letters of R, G, B, W, A in the order in which they are sent.' },
    bits: { ...whole, enum: [8, 16] },
    perUniverse: { ...whole, enum: [510, 512] },
    whole: yesNo,
    start: {
      oneOf: [
        record({ kind: oneOf('after', 'controller') }),
        record({ kind: oneOf('at'), universe: whole, channel: whole }),
      ],
    },
    reversed: yesNo,
    nulls: whole,
    nullsSent: yesNo,
    machineId: nullable(text),
    output: nullable(whole),
    placeId: nullable(text),
    from: point,
    to: point,
  }),
  Import: record({
    id: text,
    name: text,
    state: oneOf('working', 'refused', 'ready'),
    'done?': whole,
    'of?': whole,
    'why?': text,
    'rows?': list(
      record({ key: text, state: oneOf('added', 'changed', 'gone', 'same'), subject: text, says: list(text) }),
    ),
    'notes?': list(text),
  }),
  ImportWrite: record({ author: text, keys: { ...list(text), description: 'Keys of the rows to be written.' } }),
  ImportWritten: record({ seq: whole, sentence: text, changes: whole }),
  Show: record({
    seq: { ...whole, description: 'Number of the last edit.' },
    records: record({
      show: list(named('ShowInfo')),
      place: list(named('Place')),
      type: list(named('FixtureType')),
      universe: list(named('Universe')),
      lamp: list(named('Lamp')),
      source: list(named('Source')),
      machine: list(named('Machine')),
      run: list(named('PixelRun')),
    }),
  }),
  ProposedEdit: record({
    author: text,
    sentence: { ...text, description: 'What was done, in the past tense.' },
    changes: list(
      record({
        kind: oneOf(...KINDS),
        id: text,
        rev: { ...nullable(whole), description: 'Revision that was read; null to add a record.' },
        after: { type: ['object', 'null'], description: 'The record as it should be; null to remove it.' },
      }),
    ),
  }),
  EditHead: record({
    seq: whole,
    at: { ...text, format: 'date-time' },
    author: text,
    sentence: text,
    'undoes?': whole,
  }),
  Edit: {
    allOf: [
      named('EditHead'),
      record({
        changes: list(
          record({ kind: text, id: text, before: { type: ['object', 'null'] }, after: { type: ['object', 'null'] } }),
        ),
      }),
    ],
  },
  History: record({ edits: list(named('EditHead')), undo: nullable(whole), redo: nullable(whole) }),
  Author: record({ author: text }),
  Settings: record({
    interface: { ...text, description: '“auto”, or an address of this computer.' },
    outputRate: { ...number, minimum: 1, maximum: 44 },
    outputPriority: { ...whole, minimum: 1, maximum: 200 },
    artnetBroadcast: yesNo,
    poll: yesNo,
    artnetTimeout: { ...whole, description: 'Milliseconds.', minimum: 1000, maximum: 60000 },
  }),
  Interface: record({ name: text, address: text, netmask: text, mac: text, loopback: yesNo }),
  Interfaces: record({
    interfaces: list(named('Interface')),
    chosen: text,
    inUse: { oneOf: [named('Interface'), { type: 'null' }] },
  }),
  Stream: record({
    mark: { ...whole, description: 'By this number frames name the stream as owner of a slot.' },
    name: text,
    address: text,
    cid: text,
    priority: whole,
    slotPriority: yesNo,
    preview: yesNo,
    terminated: yesNo,
    lost: yesNo,
    own: yesNo,
    syncAddress: whole,
    slotCount: whole,
    rate1: number,
    rate10: number,
    jitter: { ...number, description: 'Mean deviation of the intervals, milliseconds.' },
    packets: whole,
    missing: whole,
    missing10: whole,
    repeats: whole,
    late: whole,
    firstSeen: whole,
    lastSeen: whole,
  }),
  LiveUniverse: record({
    key: { ...whole, description: 'sACN universe, or 65536 + Art-Net Port-Address.' },
    protocol,
    number: whole,
    show: nullable(whole),
    name: text,
    state: oneOf('steady', 'ragged', 'silent', 'stray', 'contested'),
    because: text,
    streams: list(named('Stream')),
  }),
  Node: record({
    address: text,
    mac: text,
    shortName: text,
    longName: text,
    report: text,
    kind: text,
    firmware: whole,
    ports: list(
      record({
        number: whole,
        direction: oneOf('out', 'in'),
        portAddress: whole,
        active: yesNo,
        merging: yesNo,
        ltp: yesNo,
        sacn: yesNo,
      }),
    ),
    gone: yesNo,
    firstSeen: whole,
    lastSeen: whole,
  }),
  Output: record({
    hot: yesNo,
    since: whole,
    by: text,
    holds: list(
      record({
        client: text,
        by: text,
        key: whole,
        universe: whole,
        runs: list(list(whole)),
        since: whole,
        stay: yesNo,
      }),
    ),
    rate: { ...number, description: 'Packets sent in the last second.' },
    targets: { ...map(list(text)), description: 'Addresses to which taken Art-Net universes go, by key.' },
  }),
  Live: record({
    at: whole,
    listeningSince: whole,
    interface: { oneOf: [named('Interface'), { type: 'null' }] },
    trouble: text,
    universes: list(named('LiveUniverse')),
    nodes: list(named('Node')),
    output: named('Output'),
    packetsPerSecond: number,
    packets: whole,
    rejected: map(whole),
  }),
  Hot: record({ hot: yesNo, by: text }),
  Take: record({
    client: text,
    by: text,
    'stay?': { ...yesNo, description: 'Keep sending when the client’s feed is lost.' },
    slots: {
      ...map({ ...whole, minimum: 0, maximum: 255 }),
      description: 'Levels by address or run: `3/47`, `3/1-24`.',
    },
  }),
  GiveBack: record({ 'client?': text, 'slots?': list(text) }, 'Without client and slots: everything of everybody.'),
};
