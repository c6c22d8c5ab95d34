/** Checks of the network, each in a file of its own; a new one is a file and a line here. */
import { allowance } from './allowance';
import { capability } from './capability';
import { dhcp } from './dhcp';
import { type Check, type Finding, type NetworkView, type Repair, viewOf } from './finding';
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
import { wireLoad } from './wireLoad';
import { type Plan, recordsAfter } from '../../show/edit';
import type { Kind, ShowRecords } from '../../show/records';

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

/**
 * Everything found wrong with the network's plan, in time linear in machines and their ports. A check that
 * fails itself is named as a finding, and the others stand. `between` is called after each check.
 */
export function networkFindings(
  records: ShowRecords,
  between: () => void = () => undefined,
  checks: readonly Check[] = NETWORK_CHECKS,
): Finding[] {
  const view = viewOf(records);
  return checks.flatMap((check) => {
    const found = findingsOf(check, view);
    between();
    return found;
  });
}

function findingsOf(check: Check, view: NetworkView): Finding[] {
  try {
    return [...check.find(view)];
  } catch (error) {
    return [
      {
        rule: 'check-failed',
        weight: 'look at',
        subjects: [],
        sentence: `The check “${check.rule}” failed, so what it looks for is not known. All other checks stand.`,
        evidence: [(error as Error).message],
      },
    ];
  }
}

export function networkRepairs(records: ShowRecords, finding: Finding): Repair[] {
  return NETWORK_CHECKS.find(({ rule }) => rule === finding.rule)?.repairs(viewOf(records), finding) ?? [];
}

/** Kinds of record that the checks ask. */
const ASKED: readonly Kind[] = ['lamp', 'run', 'machine', 'model', 'network', 'universe', 'route'];

/** Findings that a plan would bring to the network. */
export function networkConsequences(records: ShowRecords, { changes }: Plan): Finding[] {
  const kinds = new Set(changes.map(({ kind }) => kind));
  if (!ASKED.some((kind) => kinds.has(kind))) return [];
  const now = new Set(networkFindings(records).map(({ sentence }) => sentence));
  return networkFindings(recordsAfter(records, changes)).filter(({ sentence }) => !now.has(sentence));
}
