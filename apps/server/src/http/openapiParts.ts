/** Pieces of which the shapes of the API are put together. */

export const text = { type: 'string' } as const;
export const whole = { type: 'integer' } as const;
export const number = { type: 'number' } as const;
export const yesNo = { type: 'boolean' } as const;
export const list = (items: object) => ({ type: 'array', items });
export const map = (values: object) => ({ type: 'object', additionalProperties: values });
export const named = (name: string) => ({ $ref: `#/components/schemas/${name}` });
export const oneOf = (...words: string[]) => ({ type: 'string', enum: words });
export const nullable = (schema: { type: string }) => ({ ...schema, type: [schema.type, 'null'] });

/** All properties required but those whose name ends in a question mark. */
export function record(properties: Record<string, object>, description?: string) {
  const entries = Object.entries(properties).map(([name, schema]) => [name.replace('?', ''), schema] as const);
  const required = Object.keys(properties).filter((name) => !name.endsWith('?'));
  return { type: 'object', ...(description && { description }), properties: Object.fromEntries(entries), required };
}

export const protocol = oneOf('sacn', 'artnet');
export const row = { id: text, rev: { ...whole, description: 'Number of the edit that last changed this record.' } };
