/** A plan's settings as packets for a node, and what a push came to. */
import { splitPortAddress } from '../address';
import { ArtNet, encodeAddress, encodeInput, encodeIpProg } from '../artnet';
import type { FailSafe, NodeReport, PushResult } from '../contract';
import { addressesOf, maskText } from '../ip';
import { carriedBy, wireNumber } from '../machine';
import type { Machine, MachinePort, Universe } from '../show';
import { commonFailSafe, shortNameOf, type Drift } from './drift';

const FAIL_COMMANDS: Readonly<Record<FailSafe, number>> = {
  hold: ArtNet.AcFailHold,
  black: ArtNet.AcFailZero,
  full: ArtNet.AcFailFull,
  look: ArtNet.AcFailScene,
};

/**
 * The packets that bring a node to its plan, for the fields that differ and that Art-Net can set;
 * the address last, since the node answers elsewhere afterwards.
 */
export function pushPackets(
  plan: Machine,
  universes: ReadonlyMap<number, Universe>,
  node: NodeReport,
  drift: readonly Drift[],
): Uint8Array[] {
  const wanted = new Set(drift.filter(({ way }) => way !== 'panel').map(({ field }) => field));
  const packets: Uint8Array[] = [];
  const settings = new Map(
    plan.ports.map((port) => [port.number, { ...carriedBy(port, plan.ports), number: port.number }]),
  );
  if (wanted.has('name')) packets.push(encodeAddress({ portName: shortNameOf(plan.name), longName: plan.name }));
  for (const page of new Set(node.ports.map((port) => port.page))) {
    const here = node.ports.filter((port) => port.page === page);
    const command = (code: number) => packets.push(encodeAddress({ bindIndex: page, command: code }));
    const inputs = here.filter(({ direction }) => direction === 'in');
    for (const seen of here) {
      const port = settings.get(seen.number);
      const is = (part: string) => wanted.has(`port ${seen.number} ${part}`);
      if (!port) continue;
      if (is('direction') && port.use !== 'off' && seen.direction !== port.use)
        command((port.use === 'in' ? ArtNet.AcDirectionRx : ArtNet.AcDirectionTx) + seen.index);
      if (is('protocol')) command((port.protocol === 'sacn' ? ArtNet.AcAcnSel : ArtNet.AcArtNetSel) + seen.index);
      if (is('merge')) command((port.merge === 'ltp' ? ArtNet.AcMergeLtp : ArtNet.AcMergeHtp) + seen.index);
      if (is('RDM')) command((port.rdm ? ArtNet.AcRdmEnable : ArtNet.AcRdmDisable) + seen.index);
    }
    if (inputs.some(({ number }) => wanted.has(`port ${number} direction`)))
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
    packets.push(...pageAddress(page, here, settings, universes, wanted));
  }
  const fail = commonFailSafe(plan.ports);
  if (wanted.has('signal lost') && fail !== undefined) packets.push(encodeAddress({ command: FAIL_COMMANDS[fail] }));
  const input = plan.ports.find(({ use }) => use === 'in');
  if (wanted.has('priority') && input) packets.push(encodeAddress({ acnPriority: input.priority }));
  if (['address', 'mask', 'DHCP'].some((field) => wanted.has(field))) {
    const main = addressesOf(plan)[0];
    const command = ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_ADDRESS | ArtNet.IPPROG_MASK;
    if (plan.interfaces[0]?.addresses[0]?.way === 'dhcp')
      packets.push(encodeIpProg({ command: ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_DHCP }));
    else if (main) packets.push(encodeIpProg({ command, ip: main.text, mask: maskText(main.prefix) }));
  }
  return packets;
}

/** Net, sub-net and universes of a page. Its ports share net and sub-net: those of its first port that is off. */
function pageAddress(
  page: number,
  here: NodeReport['ports'],
  settings: ReadonlyMap<number, MachinePort>,
  universes: ReadonlyMap<number, Universe>,
  wanted: ReadonlySet<string>,
): Uint8Array[] {
  const off = here.filter(({ number }) => wanted.has(`port ${number} universe`));
  const wires = off.flatMap((seen) => {
    const port = settings.get(seen.number);
    return port ? [{ seen, ...splitPortAddress(wireNumber(port, universes)) }] : [];
  });
  const [first] = wires;
  if (!first) return [];
  const swIn = [0, 1, 2, 3].map(() => ArtNet.NO_CHANGE);
  const swOut = [...swIn];
  for (const { seen, universe } of wires) {
    const direction = settings.get(seen.number)!.use;
    (direction === 'in' ? swIn : swOut)[seen.index] = ArtNet.PROGRAM | universe;
  }
  return [
    encodeAddress({
      bindIndex: page,
      netSwitch: ArtNet.PROGRAM | first.net,
      subSwitch: ArtNet.PROGRAM | first.sub,
      swIn,
      swOut,
    }),
  ];
}

/** What a push came to: fields that are as planned now, those the node would not take, those no packet sets. */
export const pushVerdict = (before: readonly Drift[], after: readonly Drift[]): PushResult['fields'] => {
  const still = new Map(after.map((one) => [one.field, one]));
  const told = new Set(before.map(({ field }) => field));
  return [...before, ...after.filter(({ field }) => !told.has(field))].map(
    ({ field, what, planned, seen, way, panel }) => {
      const now = still.get(field);
      if (!now) return { what, planned, seen, state: 'done' as const, panel: '' };
      return {
        what,
        planned,
        seen: now.seen,
        state: way === 'panel' ? ('not supported' as const) : ('refused' as const),
        panel,
      };
    },
  );
};
