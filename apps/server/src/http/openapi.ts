/** The API described in OpenAPI 3.1: every endpoint that there is. */
import { list, named, text, whole } from './openapiParts';
import { schemas } from './openapiSchemas';

const json = (schema: object) => ({ 'application/json': { schema } });
const answer = (description: string, schema: object) => ({ description, content: json(schema) });
const body = (schema: object) => ({ required: true, content: json(schema) });
const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: named('Problem') } },
});

const BAD = { '400': problem('The input is not well-formed; `faults` says where.') };
const SHORTLY = { '503': problem('The engine has just started.') };
const file = (type: string) => ({ description: 'The file.', content: { [type]: {} } });
const id = { name: 'id', in: 'path', required: true, schema: text };

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
    '/api/findings': {
      get: {
        summary: 'What is wrong with the plan of the network.',
        responses: { '200': answer('Findings.', named('Findings')) },
      },
    },
    '/api/show/shipped': {
      post: {
        summary: 'Put a show that ships with Taxiarch in place of this one, as one edit.',
        requestBody: body(named('ShippedShow')),
        responses: { '201': answer('The edit.', named('Edit')), ...BAD, '409': problem('It is open already.') },
      },
    },
    '/api/history': {
      get: {
        summary: 'The last edits, newest first.',
        parameters: [
          { name: 'author', in: 'query', schema: text, description: 'For whom undo and redo are asked.' },
          { name: 'newest', in: 'query', schema: whole, description: 'How many edits; 30 if not said.' },
        ],
        responses: { '200': answer('History.', named('History')), ...BAD },
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
    '/api/import/{kind}': {
      post: {
        summary: 'Begin to read a file: mvr, gdtf or show. The body is the file itself.',
        parameters: [
          { name: 'kind', in: 'path', required: true, schema: { ...text, enum: ['mvr', 'gdtf', 'show'] } },
          { name: 'name', in: 'query', schema: text, description: 'Name of the file, for the history.' },
        ],
        requestBody: { required: true, content: { 'application/octet-stream': {} } },
        responses: {
          '202': answer('Reading has begun; ask again by its id.', named('Import')),
          ...BAD,
          '413': problem('The file is too large.'),
          '429': problem('Too many files are being read.'),
        },
      },
    },
    '/api/import/{id}': {
      get: {
        summary: 'How far reading is; when it is done, what the file would change.',
        parameters: [id],
        responses: { '200': answer('The import.', named('Import')), '404': problem('Cancelled or forgotten.') },
      },
      delete: {
        summary: 'Stop reading and forget.',
        parameters: [id],
        responses: { '204': { description: 'Forgotten.' }, '404': problem('Cancelled or forgotten.') },
      },
    },
    '/api/import/{id}/write': {
      post: {
        summary: 'Write the chosen rows as one edit.',
        parameters: [id],
        requestBody: body(named('ImportWrite')),
        responses: {
          '201': answer('What was written.', named('ImportWritten')),
          ...BAD,
          '422': problem('Nothing to write, or the show would not hold together.'),
        },
      },
    },
    '/api/export/gdtf/{type}': {
      get: {
        summary: 'A fixture type of the show or the library as a GDTF file.',
        parameters: [{ name: 'type', in: 'path', required: true, schema: text }],
        responses: { '200': file('application/zip'), '404': problem('No such type.') },
      },
    },
    '/api/export/mvr': {
      get: { summary: 'The rig as an MVR file.', responses: { '200': file('application/zip') } },
    },
    '/api/export/csv/{table}': {
      get: {
        summary: 'A table of lamps, channels, pixels, addresses or ports.',
        parameters: [
          {
            name: 'table',
            in: 'path',
            required: true,
            schema: { ...text, enum: ['lamps', 'channels', 'pixels', 'addresses', 'ports', 'outputs'] },
          },
        ],
        responses: { '200': file('text/csv'), '404': problem('No such table.') },
      },
    },
    '/api/export/show': {
      get: { summary: 'The whole show as one JSON document.', responses: { '200': file('application/json') } },
    },
    '/api/live': {
      get: {
        summary: 'What is on the wire now.',
        responses: { '200': answer('The last report.', named('Live')), ...SHORTLY },
      },
    },
    '/api/nodes/push': {
      post: {
        summary: 'Set nodes as planned, or as a snapshot was, and read them back.',
        requestBody: body(named('Push')),
        responses: {
          '200': answer('How each came out, field by field.', named('Pushed')),
          ...BAD,
          '404': problem('The snapshot is not in the show.'),
          '409': problem('Taxiarch is safe.'),
        },
      },
    },
    '/api/nodes/locate': {
      post: {
        summary: 'Make a node’s lights flash, or stop that.',
        requestBody: body(named('Locate')),
        responses: {
          '200': answer('The node as it says it is now.', named('Node')),
          ...BAD,
          '404': problem('No node answers there.'),
          '409': problem('Taxiarch is safe, or the node did not answer.'),
        },
      },
    },
    '/api/nodes/scan': {
      post: {
        summary: 'Ask for nodes at once.',
        responses: { '200': answer('Asked.', { type: 'object', properties: { asked: { type: 'boolean' } } }) },
      },
    },
    '/api/stand-ins': {
      get: {
        summary: 'The stand-ins of the demo show.',
        responses: {
          '200': answer('How each stands.', list(named('StandIn'))),
          '404': problem('There are none.'),
          '503': problem('They do not answer.'),
        },
      },
    },
    '/api/stand-ins/handle': {
      post: {
        summary: 'Do something to a stand-in: power, cable, trouble, or a turn at its front panel.',
        requestBody: body({ type: 'object' }),
        responses: {
          '200': answer('How each stands now.', list(named('StandIn'))),
          ...BAD,
          '404': problem('There are none.'),
        },
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
    '/api/routes': {
      get: { summary: 'Routes as they run.', responses: { '200': answer('Routes.', list(named('RouteNow'))) } },
    },
    '/api/routes/run': {
      post: {
        summary: 'Switch routes on or off, all or none.',
        requestBody: body(named('RunRoutes')),
        responses: {
          '200': answer('Routes.', list(named('RouteNow'))),
          ...BAD,
          '409': problem('Safe, or not in the show.'),
        },
      },
    },
    '/api/routes/give-back': {
      post: {
        summary: 'Give a backup route back to its first input that is heard.',
        requestBody: body(named('RouteId')),
        responses: { '200': answer('Routes.', list(named('RouteNow'))), ...BAD, '409': problem('Not in the show.') },
      },
    },
    '/api/routes/learn': {
      post: {
        summary: 'Wait for a fader to move that stood still: 1.5 s of listening, then 20 s of waiting.',
        responses: { '200': answer('The fader.', named('Learnt')), '409': problem('None moved.') },
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
