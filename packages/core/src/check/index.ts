/** Checks of the network, each in a file of its own; a new one is a file and a line here. */
import { allowance, allowanceText } from './allowance';
import { capability } from './capability';
import { dhcp } from './dhcp';
import { viewOf, type Check, type Finding, type Repair } from './finding';
import { fedBack } from './fedBack';
import { loopback } from './loopback';
import { masks } from './masks';
import { multicastGroups } from './multicastGroups';
import { noPort } from './noPort';
import { noReceiver } from './noReceiver';
import { noSender } from './noSender';
import { nothingSent } from './nothingSent';
import { outsidePlans } from './outsidePlans';
import { pages } from './pages';
import { priorities } from './priorities';
import { protocolDiffers } from './protocolDiffers';
import { reach } from './reach';
import { reserved } from './reserved';
import { sameAddress } from './sameAddress';
import { sentBeside } from './sentBeside';
import { sentTwice } from './sentTwice';
import { tooFast } from './tooFast';
import { tooManySources } from './tooManySources';
import { twoInOneSubnet } from './twoInOneSubnet';
import { unicast } from './unicast';
import { linkLoad, wireLoad } from './wireLoad';
import { recordsAfter, type Plan } from '../patch';
import type { Kind, ShowRecords } from '../show';

export * from './finding';
export { allowanceText, linkLoad };

export const NETWORK_CHECKS: readonly Check[] = [
  sameAddress,
  masks,
  reserved,
  loopback,
  reach,
  twoInOneSubnet,
  outsidePlans,
  dhcp,
  capability,
  pages,
  noSender,
  nothingSent,
  noPort,
  noReceiver,
  protocolDiffers,
  priorities,
  tooManySources,
  allowance,
  sentBeside,
  sentTwice,
  unicast,
  tooFast,
  wireLoad,
  multicastGroups,
  fedBack,
];

/** Everything found wrong with the network's plan, in time linear in machines and their ports. */
export function networkFindings(records: ShowRecords): Finding[] {
  const view = viewOf(records);
  return NETWORK_CHECKS.flatMap((check) => [...check.find(view)]);
}

export function networkRepairs(records: ShowRecords, finding: Finding): Repair[] {
  return NETWORK_CHECKS.find(({ rule }) => rule === finding.rule)?.repairs(viewOf(records), finding) ?? [];
}

/** Kinds of record that the checks ask. */
const ASKED: readonly Kind[] = ['lamp', 'run', 'machine', 'model', 'network', 'source', 'universe', 'route'];

/** Findings that a plan would bring to the network. */
export function networkConsequences(records: ShowRecords, { changes }: Plan): Finding[] {
  const kinds = new Set(changes.map(({ kind }) => kind));
  if (!ASKED.some((kind) => kinds.has(kind))) return [];
  const now = new Set(networkFindings(records).map(({ sentence }) => sentence));
  return networkFindings(recordsAfter(records, changes)).filter(({ sentence }) => !now.has(sentence));
}
