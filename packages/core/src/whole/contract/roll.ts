/** Lamps that answer: the roll call, setting lamps, and matching them by eye, over HTTP. */
import {
  atLeastOne,
  flag,
  list,
  listOf,
  name,
  optional,
  plain,
  plainOf,
  report,
  shape,
  text,
  whole,
  words,
  yesNo,
  type Field,
  type ReportOf,
} from '../../base/field';
import {
  lampOutcome,
  lampParameter,
  rollReply,
  seenLamp,
  type LampOutcome,
  type LampParameter,
  type LampWish,
  type RollReply,
  type SeenLamp,
} from '../../truth/roll';
import { DESCRIPTIONS, type FixtureType } from '../../show/records';
import { at } from './endpoint';

const MOST_LAMPS = 5000;
const MOST_PORTS = 4000;
const PORT_ADDRESSES = 0x7fff;

const uid = name('UID', { longest: 13 });
const uids = atLeastOne(list('Lamps', uid, MOST_LAMPS, { what: 'Say which lamps: “uids”' }), 'Name at least one lamp.');
const outcomes = report('LampOutcomes', { results: listOf<LampOutcome>(lampOutcome) });

const rollPorts = list(
  'Ports',
  shape('Port', { address: text('Address', 40), portAddress: whole('Port-Address', 0, PORT_ADDRESSES) }),
  MOST_PORTS,
);
export interface CallRequest {
  readonly ports?: readonly { readonly address: string; readonly portAddress: number }[] | undefined;
  readonly afresh?: boolean | undefined;
}

const wish = shape('Wish', {
  uid,
  address: optional(whole('Start channel', 1, 512)),
  mode: optional(whole('Mode', 1, 255)),
  label: optional(text('Label', 32)),
});

const switched = report('', { on: yesNo() });
const greeting = report('', { greets: yesNo('A lamp that nobody knew is greeted by a notice.') });
const parameters = report('LampParameters', {
  lamp: plain<SeenLamp>(seenLamp.schema),
  parameters: listOf<LampParameter>(lampParameter),
});
export interface LampParameters extends ReportOf<typeof parameters.fields> {}

export const ROLL_ENDPOINTS = {
  readRoll: at('readRoll', {
    says: 'How every lamp stands by the last roll call: planned beside seen, strangers, and what is wrong with cables.',
    reply: plain<RollReply>(rollReply.schema),
    problems: ['not-ready'],
  }),
  callRoll: at('callRoll', {
    says: 'Ask all lamps, or those of some ports; they are only asked, nothing is set.',
    body: plainOf<CallRequest>(
      shape('Request', {
        ports: optional(rollPorts),
        afresh: optional(flag('Afresh', { about: 'Nodes search their lines anew first.' })),
      }),
    ),
    status: 204,
    problems: ['not-understood', 'not-possible', 'busy', 'not-ready'],
  }),
  cancelRoll: at('cancelRoll', { says: 'End the roll call.', status: 204, problems: ['nothing-to-do'] }),
  leaveAlone: at('leaveAlone', {
    says: 'Leave a trouble alone from now on, or tell it again.',
    body: shape('Request', { key: name('Key', { longest: 200 }), on: flag('On', { what: 'Whether to leave it' }) }),
    status: 204,
    problems: ['not-understood'],
  }),
  exportRoll: at('exportRoll', {
    says: 'What lamps told of themselves as CSV: addresses, hours, temperatures, errors.',
    reply: { file: 'text/csv; charset=utf-8' },
    problems: ['not-ready'],
  }),
  switchRdm: at('switchRdm', {
    says: 'Switch the RDM of a port on or off at its node, and read it back.',
    body: shape('Request', {
      address: text('Address', 40, { what: 'Say which node: “address”' }),
      port: whole('Port', 1, 512),
      on: flag('On', { what: 'Whether to be on' }),
    }),
    reply: switched,
    problems: ['not-understood', 'safe', 'not-here', 'no-answer', 'not-ready'],
  }),
  readLampType: at('readLampType', {
    says: 'A fixture type made from what a lamp tells of the mode that it is in; it is not added to the show.',
    params: { uid: words() },
    reply: plain<FixtureType>(DESCRIPTIONS.type.schema),
    problems: ['not-here', 'no-answer', 'not-ready'],
  }),
  readGreeting: at('readGreeting', { says: 'Whether new lamps are greeted.', reply: greeting }),
  setGreeting: at('setGreeting', {
    says: 'Greet a new lamp with a notice, or not.',
    body: shape('Request', { greets: flag('Greets', { what: 'Whether to greet' }) }),
    reply: greeting,
    problems: ['not-understood'],
  }),
  setLamps: at('setLamps', {
    says: 'Set address, mode or label of lamps and read them back; how they were is kept first.',
    body: plainOf<{ readonly lamps: readonly LampWish[] }>(
      shape('Request', { lamps: atLeastOne(list('Lamps', wish, MOST_LAMPS), 'Name at least one lamp.') }),
    ),
    reply: outcomes,
    problems: ['not-understood', 'safe', 'not-here', 'not-possible', 'not-ready'],
  }),
  identify: at('identify', {
    says: 'Have lamps show themselves, or stop that.',
    body: plainOf<{ readonly uids: readonly string[]; readonly on: boolean; readonly client?: string | undefined }>(
      shape('Request', {
        uids,
        on: flag('On', { what: 'Whether to be on' }),
        client: optional(text('Client', 80, { about: 'Lamps stop identifying when this client’s feed is lost.' })),
      }),
    ),
    reply: outcomes,
    problems: ['not-understood', 'safe', 'not-here', 'not-ready'],
  }),
  readParameters: at('readParameters', {
    says: 'Everything that a lamp offers to be read and set.',
    params: { uid: words() },
    reply: parameters,
    problems: ['not-here', 'not-ready'],
  }),
  setParameter: at('setParameter', {
    says: 'Set the same of many lamps, and read it back.',
    body: shape('Request', {
      uids,
      pid: whole('Parameter', 0, 0xffff),
      part: optional(
        whole('Which of its values', 0, 255, {
          about: 'From 0, which is meant if it is left out; the others stay as they are.',
        }),
      ),
      value: plain<number | string>({ anyOf: [{ type: 'integer' }, { type: 'string' }] }) as Field<number | string>,
    }),
    reply: outcomes,
    problems: ['not-understood', 'safe', 'not-here', 'not-ready'],
  }),
} as const;
