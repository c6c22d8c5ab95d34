/** The table of all endpoints. Server, client, OpenAPI document and docs are made from it. */
import { plain, type Field } from '../field';
import { DEVICE_ENDPOINTS } from './devices';
import { at, type Endpoint } from './endpoint';
import type { EndpointName } from './paths';
import { LIVE_ENDPOINTS } from './live';
import { PRACTICE_ENDPOINTS } from './practice';
import { SHOW_ENDPOINTS } from './show';

export const ENDPOINTS = {
  ...SHOW_ENDPOINTS,
  ...LIVE_ENDPOINTS,
  ...DEVICE_ENDPOINTS,
  ...PRACTICE_ENDPOINTS,
  readOpenApi: at('readOpenApi', { says: 'This document.', reply: plain<object>({ type: 'object' }) }),
} as const satisfies Readonly<Record<EndpointName, Endpoint>>;

export const isField = (body: Endpoint['body']): body is Field => body !== null && 'schema' in body;
