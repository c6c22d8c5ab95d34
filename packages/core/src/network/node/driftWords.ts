/** A difference in words: what it is, both sides of it, and what to turn at the box where no packet does. */
import { formatWire, protocolName } from '../../base/address';
import { MERGE_WORDS, USE_WORDS, lossText } from '../machine';
import type { Difference } from './drift';
import type { FailSafe } from './nodeReport';

export interface DriftWords {
  /** “Port 2, merge” */
  readonly what: string;
  readonly planned: string;
  readonly seen: string;
  /** What to set at the front panel, should the protocol not do it */
  readonly panel: string;
}

const FAIL_WORDS: Readonly<Record<FailSafe, string>> = {
  hold: 'holds for ever',
  black: 'black',
  full: 'full',
  look: 'stored look',
};

const onOff = (on: boolean): string => (on ? 'on' : 'off');

export function driftWords(drift: Difference): DriftWords {
  switch (drift.kind) {
    case 'direction': {
      const planned = USE_WORDS[drift.planned];
      return {
        what: `Port ${drift.port}, direction`,
        planned,
        seen: USE_WORDS[drift.seen],
        panel: `Set port ${drift.port} to ${planned} at the front panel.`,
      };
    }
    case 'protocol': {
      const planned = protocolName(drift.planned);
      return {
        what: `Port ${drift.port}, protocol`,
        planned,
        seen: protocolName(drift.seen),
        panel: `Set port ${drift.port} to ${planned} at the front panel.`,
      };
    }
    case 'universe':
      return {
        what: `Port ${drift.port}, universe`,
        planned: formatWire(drift.planned),
        seen: formatWire(drift.seen),
        panel: `Set port ${drift.port} to ${drift.shown} at the front panel.`,
      };
    case 'merge': {
      const planned = MERGE_WORDS[drift.planned];
      return {
        what: `Port ${drift.port}, merge`,
        planned,
        seen: MERGE_WORDS[drift.seen],
        panel: `Set port ${drift.port} to “${planned}” at the front panel.`,
      };
    }
    case 'rdm': {
      const planned = onOff(drift.planned);
      return {
        what: `Port ${drift.port}, RDM`,
        planned,
        seen: onOff(drift.seen),
        panel: `Switch RDM of port ${drift.port} ${planned} at the front panel.`,
      };
    }
    case 'name':
      return { ...both(drift), what: 'Name', panel: `Name it “${drift.planned}” at the front panel.` };
    case 'signal lost':
      return {
        what: 'Signal lost',
        planned: FAIL_WORDS[drift.planned],
        seen: FAIL_WORDS[drift.seen],
        panel: `Set “${lossText(drift.loss)}” for lost signal at the front panel.`,
      };
    case 'priority':
      return {
        what: 'Priority of inputs',
        planned: String(drift.planned),
        seen: String(drift.seen),
        panel: `Set the sACN priority to ${drift.planned} at the front panel.`,
      };
    case 'firmware':
      return {
        ...both(drift),
        what: 'Firmware',
        panel: `Bring its firmware to ${drift.planned} with its maker’s program.`,
      };
    case 'address':
      return { ...both(drift), what: 'Address', panel: `Set the address ${drift.planned} at the machine itself.` };
    case 'dhcp':
      return {
        what: 'DHCP',
        planned: onOff(drift.planned),
        seen: onOff(drift.seen),
        panel: `Switch DHCP ${onOff(drift.planned)} at the machine itself.`,
      };
    case 'mask':
      return { ...both(drift), what: 'Mask', panel: `Set the mask ${drift.planned} at the machine itself.` };
  }
}

const both = ({ planned, seen }: { planned: string; seen: string }) => ({ planned, seen });
