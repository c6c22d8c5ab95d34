/** A network interface of this computer, as its system gives it. */
import { report, word, words, yesNo, type ReportOf } from '../../base/field';

export const interfaceInfo = report('Interface', {
  name: words(),
  address: words(),
  netmask: words(),
  mac: words(),
  loopback: yesNo(),
  medium: word(['wired', 'wireless', 'loopback', 'virtual', 'unknown'], 'What carries it, as far as the system tells.'),
  up: yesNo(),
});
export interface InterfaceInfo extends ReportOf<typeof interfaceInfo.fields> {}
