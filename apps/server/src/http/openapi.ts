/** The API described in OpenAPI 3.1: every endpoint that there is. The types are those of `packages/core/src/contract`. */

const text = { type: 'string' } as const;
const whole = { type: 'integer' } as const;
const number = { type: 'number' } as const;
const yesNo = { type: 'boolean' } as const;
const list = (items: object) => ({ type: 'array', items });
const map = (values: object) => ({ type: 'object', additionalProperties: values });
const named = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const oneOf = (...words: string[]) => ({ type: 'string', enum: words });
const nullable = (schema: { type: string }) => ({ ...schema, type: [schema.type, 'null'] });

/** All properties required but those whose name ends in a question mark. */
function record(properties: Record<string, object>, description?: string) {
  const entries = Object.entries(properties).map(([name, schema]) => [name.replace('?', ''), schema] as const);
  const required = Object.keys(properties).filter((name) => !name.endsWith('?'));
  return { type: 'object', ...(description && { description }), properties: Object.fromEntries(entries), required };
}

const json = (schema: object) => ({ 'application/json': { schema } });
const answer = (description: string, schema: object) => ({ description, content: json(schema) });
const body = (schema: object) => ({ required: true, content: json(schema) });
const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: named('Problem') } },
});

const BAD = { '400': problem('The input is not well-formed; `faults` says where.') };
const SHORTLY = { '503': problem('The engine has just started.') };
const protocol = oneOf('sacn', 'artnet');
const row = { id: text, rev: { ...whole, description: 'Number of the edit that last changed this record.' } };

const schemas = {
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
  ShowInfo: record({ ...row, name: text, about: text }),
  Place: record({ ...row, name: text, order: whole }),
  FixtureType: record({
    ...row,
    maker: text,
    name: text,
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
    placeId: nullable(text),
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
    ports: list(record({ number: whole, direction: oneOf('out', 'in'), protocol, universe: whole })),
  }),
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
    }),
  }),
  ProposedEdit: record({
    author: text,
    sentence: { ...text, description: 'What was done, in the past tense.' },
    changes: list(
      record({
        kind: oneOf('show', 'place', 'type', 'universe', 'lamp', 'source', 'machine'),
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

export const openApi = {
  openapi: '3.1.0',
  info: {
    title: 'Taxiarch',
    version: '1',
    description:
      'Plan, watch and prove a show’s Art-Net and sACN network. Levels at rate travel over the WebSocket at /feed; see docs/api.md.',
  },
  paths: {
    '/api/show': { get: { summary: 'The whole show.', responses: { '200': answer('All records.', named('Show')) } } },
    '/api/edits': {
      post: {
        summary: 'Change the show.',
        requestBody: body(named('ProposedEdit')),
        responses: {
          '201': answer('The edit as it was written; it is safe on the disk.', named('Edit')),
          ...BAD,
          '409': problem('A record has changed since it was read; `conflicts` shows it as it is.'),
          '422': problem('The show would not hold together.'),
        },
      },
    },
    '/api/history': {
      get: {
        summary: 'The last edits, newest first.',
        parameters: [{ name: 'author', in: 'query', schema: text, description: 'For whom undo and redo are asked.' }],
        responses: { '200': answer('History.', named('History')) },
      },
    },
    '/api/undo': {
      post: {
        summary: 'Take back the author’s last edit.',
        requestBody: body(named('Author')),
        responses: {
          '201': answer('The edit that undoes it.', named('Edit')),
          ...BAD,
          '409': problem('Nothing to undo, or changed by others since.'),
        },
      },
    },
    '/api/redo': {
      post: {
        summary: 'Take back the author’s last undo.',
        requestBody: body(named('Author')),
        responses: {
          '201': answer('The edit that redoes it.', named('Edit')),
          ...BAD,
          '409': problem('Nothing to redo, or changed by others since.'),
        },
      },
    },
    '/api/live': {
      get: {
        summary: 'What is on the wire now.',
        responses: { '200': answer('The last report.', named('Live')), ...SHORTLY },
      },
    },
    '/api/interfaces': {
      get: {
        summary: 'Network interfaces of this computer.',
        responses: { '200': answer('Interfaces.', named('Interfaces')) },
      },
    },
    '/api/settings': {
      get: { summary: 'Settings of this computer.', responses: { '200': answer('Settings.', named('Settings')) } },
      patch: {
        summary: 'Change some of them; takes effect at once.',
        requestBody: body({ ...schemas.Settings, required: [] }),
        responses: { '200': answer('All settings.', named('Settings')), ...BAD },
      },
    },
    '/api/output': {
      get: { summary: 'What is taken and sent.', responses: { '200': answer('Output.', named('Output')), ...SHORTLY } },
    },
    '/api/output/hot': {
      post: {
        summary: 'Make hot, or safe (which gives everything back).',
        requestBody: body(named('Hot')),
        responses: { '200': answer('Output.', named('Output')), ...BAD },
      },
    },
    '/api/output/take': {
      post: {
        summary: 'Take slots, all or none.',
        requestBody: body(named('Take')),
        responses: {
          '200': answer('Output.', named('Output')),
          ...BAD,
          '409': problem('Safe, or taken by somebody else.'),
          '422': problem('The universe is not in the show.'),
        },
      },
    },
    '/api/output/give-back': {
      post: {
        summary: 'Give slots back.',
        requestBody: body(named('GiveBack')),
        responses: { '200': answer('Output.', named('Output')), ...BAD },
      },
    },
    '/api/openapi.json': {
      get: { summary: 'This document.', responses: { '200': answer('OpenAPI 3.1.', { type: 'object' }) } },
    },
  },
  components: { schemas },
} as const;
