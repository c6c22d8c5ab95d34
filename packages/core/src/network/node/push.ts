/** The packets that bring a node to its plan, and what came of them. */
import { formatPortAddress, splitPortAddress } from '../../base/address';
import { ArtNet, encodeAddress, encodeInput, encodeIpProg } from '../../protocol/artnet';
import { addressesOf, maskText } from '../ip';
import { carriedBy, wireNumber } from '../machine';
import type { Machine, MachinePort, Universe } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';
import { commonFailSafe, driftKey, shortNameOf, type Difference, type Drift } from './drift';
import { driftWords } from './driftWords';
import type { FailSafe, NodeReport, PushResult } from './nodeReport';

const FAIL_COMMANDS: Readonly<Record<FailSafe, number>> = {
  hold: ArtNet.AcFailHold,
  black: ArtNet.AcFailZero,
  full: ArtNet.AcFailFull,
  look: ArtNet.AcFailScene,
};

/** What differs and can be set by a packet, to be asked for one by one. */
class Wanted {
  private readonly keys: ReadonlySet<string>;

  constructor(drift: readonly Drift[]) {
    this.keys = new Set(drift.filter(({ way }) => way !== 'panel').map(driftKey));
  }

  has(kind: Difference['kind'], port?: number): boolean {
    return this.keys.has(port === undefined ? kind : `${port} ${kind}`);
  }
}

/**
 * The packets that bring a node to its plan, for the fields that differ and that Art-Net can set; the
 * address last, since the node answers elsewhere afterwards. Refused if the plan cannot be on this box.
 */
export function pushPackets(
  plan: Machine,
  universes: ReadonlyMap<number, Universe>,
  node: NodeReport,
  drift: readonly Drift[],
): Result<Uint8Array[]> {
  const wanted = new Wanted(drift);
  const packets: Uint8Array[] = [];
  const settings = new Map(
    plan.ports.map((port) => [port.number, { ...carriedBy(port, plan.ports), number: port.number }]),
  );
  if (wanted.has('name')) packets.push(encodeAddress({ portName: shortNameOf(plan.name), longName: plan.name }));
  for (const page of new Set(node.ports.map((port) => port.page))) {
    const here = node.ports.filter((port) => port.page === page);
    const address = pageAddress(plan, page, here, settings, universes, wanted);
    if (!address.ok) return address;
    packets.push(...pagePorts(page, here, settings, wanted), ...address.value);
  }
  const fail = commonFailSafe(plan.ports);
  if (wanted.has('signal lost') && fail !== undefined) packets.push(encodeAddress({ command: FAIL_COMMANDS[fail] }));
  const input = plan.ports.find(({ use }) => use === 'in');
  if (wanted.has('priority') && input) packets.push(encodeAddress({ acnPriority: input.priority }));
  if ((['address', 'mask', 'dhcp'] as const).some((kind) => wanted.has(kind))) {
    const main = addressesOf(plan)[0];
    const command = ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_ADDRESS | ArtNet.IPPROG_MASK;
    if (plan.interfaces[0]?.addresses[0]?.way === 'dhcp')
      packets.push(encodeIpProg({ command: ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_DHCP }));
    else if (main) packets.push(encodeIpProg({ command, ip: main.text, mask: maskText(main.prefix) }));
  }
  return ok(packets);
}

type Ports = NodeReport['ports'];

/** Commands for the ports of one page, and which of its inputs are switched off. */
function pagePorts(
  page: number,
  here: Ports,
  settings: ReadonlyMap<number, MachinePort>,
  wanted: Wanted,
): Uint8Array[] {
  const packets: Uint8Array[] = [];
  const command = (code: number) => packets.push(encodeAddress({ bindIndex: page, command: code }));
  const inputs = here.filter(({ direction }) => direction === 'in');
  for (const { number, index, direction } of here) {
    const port = settings.get(number);
    if (!port) continue;
    if (wanted.has('direction', number) && port.use !== 'off' && direction !== port.use)
      command((port.use === 'in' ? ArtNet.AcDirectionRx : ArtNet.AcDirectionTx) + index);
    if (wanted.has('protocol', number))
      command((port.protocol === 'sacn' ? ArtNet.AcAcnSel : ArtNet.AcArtNetSel) + index);
    if (wanted.has('merge', number)) command((port.merge === 'ltp' ? ArtNet.AcMergeLtp : ArtNet.AcMergeHtp) + index);
    if (wanted.has('rdm', number)) command((port.rdm ? ArtNet.AcRdmEnable : ArtNet.AcRdmDisable) + index);
  }
  if (inputs.some(({ number }) => wanted.has('direction', number)))
    packets.push(
      encodeInput({
        bindIndex: page,
        ports: here.length,
        disabled: [0, 1, 2, 3].map((index) => {
          const seen = inputs.find((port) => port.index === index);
          return seen !== undefined && settings.get(seen.number)?.use === 'off';
        }),
      }),
    );
  return packets;
}

/**
 * Net, sub-net and universes of a page. All ports of a page share net and sub-net (Art-Net 4, ArtAddress), so
 * they are planned together: all that the plan uses must lie in one sub-net, and what is right is left alone.
 */
function pageAddress(
  plan: Machine,
  page: number,
  here: Ports,
  settings: ReadonlyMap<number, MachinePort>,
  universes: ReadonlyMap<number, Universe>,
  wanted: Wanted,
): Result<Uint8Array[]> {
  const off = here.filter(({ number }) => wanted.has('universe', number));
  if (off.length === 0) return ok([]);
  const used = here.flatMap((seen) => {
    const port = settings.get(seen.number);
    if (!port || port.use === 'off' || port.use === 'fixed') return [];
    const wire = wireNumber(port, universes);
    return [{ seen, port, wire, ...splitPortAddress(wire) }];
  });
  const [first] = used;
  const other = used.find(({ net, sub }) => net !== first!.net || sub !== first!.sub);
  if (other)
    return refuse(
      'not-possible',
      `Ports ${first!.port.number} and ${other.port.number} of ${plan.name} are planned on ${formatPortAddress(first!.wire)} and ${formatPortAddress(other.wire)}, but ports of one page of this box share net and sub-net. Plan them within one sub-net, or on another page.`,
    );
  const is = splitPortAddress(here[0]!.portAddress);
  const moved = is.net !== first!.net || is.sub !== first!.sub;
  const swIn = [0, 1, 2, 3].map((): number => ArtNet.NO_CHANGE);
  const swOut = [...swIn];
  for (const { seen, port, universe } of used)
    if (wanted.has('universe', seen.number)) (port.use === 'in' ? swIn : swOut)[seen.index] = ArtNet.PROGRAM | universe;
  return ok([
    encodeAddress({
      bindIndex: page,
      netSwitch: moved ? ArtNet.PROGRAM | first!.net : ArtNet.NO_CHANGE,
      subSwitch: moved ? ArtNet.PROGRAM | first!.sub : ArtNet.NO_CHANGE,
      swIn,
      swOut,
    }),
  ]);
}

/**
 * What a push came to: fields that are as planned now, those the node would not take, those no packet sets.
 * `answered` says that `after` is what the node itself said after the last packet; otherwise nobody knows.
 */
export const pushVerdict = (
  before: readonly Drift[],
  after: readonly Drift[],
  answered: boolean,
): PushResult['fields'] => {
  const still = new Map(after.map((one) => [driftKey(one), one]));
  const told = new Set(before.map(driftKey));
  return [...before, ...after.filter((one) => !told.has(driftKey(one)))].map((one) => {
    const { what, planned, seen, panel } = driftWords(one);
    const now = still.get(driftKey(one));
    if (!answered && one.way !== 'panel') return { what, planned, seen, state: 'no answer' as const, panel };
    if (!now) return { what, planned, seen, state: 'done' as const, panel: '' };
    return {
      what,
      planned,
      seen: driftWords(now).seen,
      state: one.way === 'panel' ? ('not supported' as const) : ('refused' as const),
      panel,
    };
  });
};
