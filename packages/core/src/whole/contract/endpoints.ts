/** The table of all endpoints. Server, client, OpenAPI document and docs are made from it. */
import { plain, type Field } from '../../base/field';
import { ARRIVAL_ENDPOINTS } from './arrival';
import { DEVICE_ENDPOINTS } from './devices';
import { at, type Endpoint } from './endpoint';
import { EXCHANGE_ENDPOINTS } from './exchange';
import { EYE_ENDPOINTS } from './eye';
import type { EndpointName } from './paths';
import { LIVE_ENDPOINTS } from './live';
import { PICTURE_ENDPOINTS } from './picture';
import { PLUG_ENDPOINTS } from './plug';
import { PRACTICE_ENDPOINTS } from './practice';
import { PROOF_ENDPOINTS } from './proof';
import { ROLL_ENDPOINTS } from './roll';
import { SHOW_ENDPOINTS } from './show';
import { WALK_ENDPOINTS } from './walk';
import { WHAT_IF_ENDPOINTS } from './whatIf';

export const ENDPOINTS = {
  ...ARRIVAL_ENDPOINTS,
  ...SHOW_ENDPOINTS,
  ...LIVE_ENDPOINTS,
  ...EXCHANGE_ENDPOINTS,
  ...DEVICE_ENDPOINTS,
  ...PLUG_ENDPOINTS,
  ...PRACTICE_ENDPOINTS,
  ...ROLL_ENDPOINTS,
  ...EYE_ENDPOINTS,
  ...PICTURE_ENDPOINTS,
  ...WALK_ENDPOINTS,
  ...WHAT_IF_ENDPOINTS,
  ...PROOF_ENDPOINTS,
  readOpenApi: at('readOpenApi', { says: 'This document.', reply: plain<object>({ type: 'object' }) }),
} as const satisfies Readonly<Record<EndpointName, Endpoint>>;

export const isField = (body: Endpoint['body']): body is Field => body !== null && 'schema' in body;
