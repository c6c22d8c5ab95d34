/** Shapes of what is sent, routed and linked, as OpenAPI 3.1 wants them. */
import { DELIVERIES, ROUTE_MERGES, START_ORDERS } from '@taxiarch/core/show';
import { list, named, nullable, oneOf, protocol, record, row, text, whole, yesNo } from './openapiParts';

const delivery = oneOf(...DELIVERIES);
const level = { ...whole, minimum: 0, maximum: 255 };
const channel = { ...whole, minimum: 1, maximum: 512 };
const priority = { ...whole, minimum: 0, maximum: 200 };
const base = { ...whole, minimum: 0, maximum: 1 };
const wire = named('WireUniverse');

export const routingSchemas = {
  SourceRange: record({
    from: { ...whole, minimum: 1 },
    count: { ...whole, minimum: 1 },
    to: { oneOf: [wire, { type: 'null' }] },
    interface: text,
    delivery: delivery,
    addresses: list(text),
    rate: whole,
    priority: priority,
    slotPriority: yesNo,
    on: yesNo,
    whenIdle: yesNo,
    note: text,
  }),
  WireUniverse: record({ protocol, number: whole }),
  Route: record({
    ...row,
    name: text,
    order: whole,
    inputs: list(record({ wire, sender: text, shift: { ...whole, minimum: -511, maximum: 511 }, priority })),
    merge: oneOf(...ROUTE_MERGES),
    returns: oneOf('at once', 'by hand'),
    out: wire,
    interface: text,
    delivery,
    addresses: list(text),
    priority,
    master: level,
    parts: list(
      record({
        first: channel,
        last: channel,
        by: oneOf('hand', 'input'),
        level,
        from: nullable(record({ wire, channel })),
      }),
    ),
    comesBack: yesNo,
  }),
  Control: record({
    ...row,
    name: text,
    wire,
    channel,
    does: oneOf('master', 'switch'),
    target: {
      oneOf: [
        record({ kind: oneOf('route'), id: text }),
        record({ kind: oneOf('universe'), number: whole }),
        record({ kind: oneOf('group'), name: text }),
      ],
    },
    threshold: { ...whole, minimum: 1, maximum: 255 },
  }),
  RouteNow: record({
    id: text,
    row: { ...whole, description: 'The key in the feed is 131072 and this.' },
    running: yesNo,
    since: whole,
    by: text,
    inputs: list(yesNo),
    parts: list(yesNo),
    current: whole,
    rate: whole,
    to: list(text),
  }),
  ControlNow: record({ id: text, level: nullable(level) }),
  RunRoutes: record({ ids: list(text), on: yesNo, by: text }),
  RouteId: record({ id: text }),
  Learnt: record({ wire, channel, level }),
  Link: record({
    ...row,
    name: text,
    sourceId: text,
    machineId: text,
    protocol,
    senderBase: base,
    receiverBase: base,
    lines: list(record({ from: whole, count: whole, to: whole })),
    startsFirst: oneOf(...START_ORDERS),
    well: list(text),
  }),
};
