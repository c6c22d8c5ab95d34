/** The API as an OpenAPI 3.1 document, made from the table of endpoints. */
import type { JsonSchema } from '../../base/field';
import { isField, ENDPOINTS } from './endpoints';
import type { Endpoint } from './endpoint';
import { FEED_MESSAGES } from './feedMessages';
import { ALWAYS, PROBLEMS, problem, type ProblemName } from './problem';

type Loose = Record<string, unknown>;

/** Schemas with a name of their own are told once, and referred to from everywhere else. */
class Names {
  readonly schemas: Loose = {};

  /** A schema in which every named one is a reference. */
  refer(schema: unknown, prefix = '#/components/schemas/'): unknown {
    if (Array.isArray(schema)) return schema.map((one) => this.refer(one, prefix));
    if (typeof schema !== 'object' || schema === null) return schema;
    const { $id, ...rest } = schema as Loose;
    const told = Object.fromEntries(Object.entries(rest).map(([key, one]) => [key, this.refer(one, prefix)]));
    if (typeof $id !== 'string') return told;
    this.schemas[$id] ??= told;
    return { $ref: `${prefix}${$id}` };
  }
}

const capitalised = (text: string): string => `${text[0]!.toUpperCase()}${text.slice(1)}`;

function responses(names: Names, { reply, status, problems }: Endpoint): Loose {
  const said: Loose = { [status]: { description: 'Done.' } };
  if (reply !== null)
    said[status] = isField(reply)
      ? { description: 'Done.', content: { 'application/json': { schema: names.refer(reply.schema) } } }
      : { description: 'The file.', content: { [reply.file]: {} } };
  const byStatus = new Map<number, ProblemName[]>();
  for (const name of [...problems, ...ALWAYS])
    byStatus.set(PROBLEMS[name].status, [...(byStatus.get(PROBLEMS[name].status) ?? []), name]);
  for (const [code, all] of byStatus)
    said[code] = {
      description: all.map((name) => `\`${name}\``).join(', '),
      content: { 'application/problem+json': { schema: names.refer(problem.schema) } },
    };
  return said;
}

function operation(names: Names, name: string, endpoint: Endpoint): Loose {
  const { says, params, query, body } = endpoint;
  const parameter =
    (where: 'path' | 'query') =>
    ([key, one]: [string, { schema: JsonSchema; about: string }]) => ({
      name: key,
      in: where,
      required: where === 'path',
      schema: one.schema,
      ...(one.about !== '' && { description: one.about }),
    });
  return {
    operationId: name,
    summary: says,
    parameters: [...Object.entries(params).map(parameter('path')), ...Object.entries(query).map(parameter('query'))],
    ...(body !== null && {
      requestBody: {
        required: true,
        content: isField(body)
          ? { 'application/json': { schema: names.refer({ ...body.schema, $id: capitalised(`${name}Request`) }) } }
          : { [body.file]: {} },
      },
    }),
    responses: responses(names, endpoint),
  };
}

function make(): Loose {
  const names = new Names();
  const paths: Record<string, Loose> = {};
  for (const [name, endpoint] of Object.entries<Endpoint>(ENDPOINTS))
    (paths[endpoint.path] ??= {})[endpoint.method.toLowerCase()] = operation(names, name, endpoint);
  return {
    openapi: '3.1.0',
    info: {
      title: 'Taxiarch',
      version: '1',
      description:
        'Plan, watch and prove a show’s Art-Net and sACN network. Levels at rate travel over the WebSocket at /feed; see docs/api.md.',
    },
    paths,
    'x-feed': FEED_MESSAGES,
    components: { schemas: names.schemas },
  };
}

export const openApi = make();

/** A JSON Schema by itself, its named parts under `$defs`. */
export function standaloneSchema(schema: JsonSchema): Loose {
  const names = new Names();
  const root = names.refer(schema, '#/$defs/') as Loose;
  return { ...root, $defs: names.schemas };
}
