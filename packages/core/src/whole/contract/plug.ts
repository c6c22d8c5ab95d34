/** DMX through a plug, over HTTP. */
import { flag, integer, list, listOf, name, orNull, report, shape, text, words, type ReportOf } from '../../base/field';
import { plugReport, serialPort, type PlugReport, type SerialPortReport } from '../../protocol/plug';
import { at } from './endpoint';

const plugs = report('Plugs', {
  plugs: listOf<PlugReport>(plugReport),
  ports: listOf<SerialPortReport>(serialPort),
  why: words('Why serial ports cannot be used; empty if they can.'),
});
export interface PlugsReply extends ReportOf<typeof plugs.fields> {}

const plugValues = report('PlugValues', {
  here: orNull(listOf(integer(), 'As the universe stands here; null while nothing is known of it.')),
  plug: orNull(listOf(integer(), 'What left it or came by it last.')),
  far: orNull(listOf(integer(), 'What is at the far end, as a stand-in says.')),
  says: words('How the stand-in finds the line; empty where there is none.'),
});
export interface PlugValuesReply extends ReportOf<typeof plugValues.fields> {}

export const PLUG_ENDPOINTS = {
  readPlugs: at('readPlugs', {
    says: 'Adapters that run, and the serial ports of this computer.',
    reply: plugs,
  }),
  runPlugs: at('runPlugs', {
    says: 'Switch adapters on or off. An output needs hot.',
    body: shape('Request', {
      ids: list('Adapters', text('Adapter', 80), 1000),
      on: flag('On'),
      by: name('Person', { what: 'Say who does this: “by”' }),
    }),
    reply: listOf<PlugReport>(plugReport),
    problems: ['not-here', 'not-possible', 'safe'],
  }),
  readPlugValues: at('readPlugValues', {
    says: 'The 512 levels at both ends of an adapter.',
    params: { machine: words('Id of the adapter.') },
    reply: plugValues,
    problems: ['not-here'],
  }),
} as const;
