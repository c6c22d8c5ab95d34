/** The ship's lamps behind nodes that speak Art-Net's RDM, without sockets: for tests of all that asks lamps. */
import { decodeArtRdm, encodeArtRdm, encodeTod } from '@taxiarch/core/protocol/artnet';
import type { LiveReport, OutputReport } from '@taxiarch/core/whole/contract';
import { hungShip, nightFerry } from '@taxiarch/core/whole/demo';
import type { HungRig, Plug } from '@taxiarch/core/truth/hung';
import { mainAddress } from '@taxiarch/core/network/ip';
import { wireNumber } from '@taxiarch/core/network/machine';
import { decodeRdm, encodeRdm, Rdm } from '@taxiarch/core/protocol/rdm';
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { LampPort, LampRequest } from '@taxiarch/core/truth/roll';
import { LampDesk } from '../engine/nodes/rdm/lampDesk';
import type { EngineHost } from '../bridge/host';

interface NetPort extends LampPort {
  readonly plug: Plug;
  readonly number: number;
  rdm: boolean;
}

/** The nodes of the demo show as they answer, their ports, and the lamps on them. */
export class HungNet {
  readonly records: ShowRecords = nightFerry();
  readonly ports: NetPort[];
  readonly desk: LampDesk;
  /** Nodes that are away, by address */
  readonly away = new Set<string>();
  hot = true;
  /** Orders to the output, in their order */
  readonly orders: Parameters<EngineHost['ask']>[0][] = [];
  /** Part of a port’s time that may be used; no bound, so that tests are quick */
  share = Infinity;

  constructor(readonly rig: HungRig = hungShip()) {
    const universes = new Map(this.records.universe.map((one) => [one.number, one]));
    this.ports = this.records.machine
      .filter(({ kind }) => kind === 'node')
      .flatMap((machine) =>
        machine.ports
          .filter(({ use }) => use === 'out')
          .map((port) => ({
            address: mainAddress(machine),
            portAddress: wireNumber(port, universes),
            plug: { box: machine.id.replace('machine-', ''), port: port.number },
            number: port.number,
            rdm: port.rdm,
          })),
      );
    this.desk = new LampDesk('7ff0:00000001', {
      send: (bytes, address) => this.node(bytes, address),
      now: () => performance.now(),
      share: () => this.share,
    });
  }

  private at(address: string, portAddress: number): NetPort | undefined {
    return this.ports.find((port) => port.address === address && port.portAddress === portAddress);
  }

  /** What a node does with a packet. */
  private node(bytes: Uint8Array, address: string): void {
    const decoded = decodeArtRdm(bytes);
    if (!decoded.ok || this.away.has(address)) return;
    const message = decoded.value;
    const back = (packet: Uint8Array) => setImmediate(() => this.desk.receive(packet, address));
    if (message.kind === 'todRequest')
      for (const portAddress of message.portAddresses) {
        const port = this.at(address, portAddress);
        if (!port) continue;
        const uids = port.rdm ? this.rig.discover(port.plug) : [];
        encodeTod(uids, { port: 1, bindIndex: 1, portAddress, full: port.rdm }).forEach(back);
      }
    if (message.kind !== 'rdm') return;
    const port = this.at(address, message.portAddress);
    const packet = decodeRdm(Uint8Array.of(Rdm.SC_RDM, ...message.packet));
    if (!port?.rdm || !packet.ok) return;
    const heard = this.rig.ask(port.plug, packet.value, performance.now());
    if (heard.kind !== 'answer') return;
    const { portAddress } = message;
    back(encodeArtRdm({ portAddress, fifoAvailable: 1, fifoMost: 1, packet: encodeRdm(heard.packet).subarray(1) }));
  }

  private live(): LiveReport {
    const nodes = this.records.machine
      .filter(({ kind }) => kind === 'node')
      .map((machine) => {
        const address = mainAddress(machine);
        const ports = this.ports
          .filter((port) => port.address === address)
          .map(({ number, portAddress, rdm }) => ({
            ...{ number, portAddress, rdm, direction: 'out', index: 0, page: 1, sacn: true },
          }));
        const mac = machine.interfaces[0]?.mac ?? '';
        return { address, mac, shortName: machine.name, ports, gone: this.away.has(address), rdmSwitch: true };
      });
    const output = { hot: this.hot } as OutputReport;
    return { nodes, discovered: [], universes: [], output } as unknown as LiveReport;
  }

  /** What of the engine's host the roll call and its like use. */
  readonly host = {
    now: () => this.live(),
    lamp: async (port: LampPort, requests: readonly LampRequest[], urgent: boolean) => ({
      answers: await this.desk.ask(port, requests, urgent),
      use: this.desk.use(port),
    }),
    table: (port: LampPort, afresh: boolean) => this.desk.table(port, afresh),
    askNoLamps: () => this.desk.cancel(),
    ask: (order: Parameters<EngineHost['ask']>[0]) => {
      this.orders.push(order);
      return Promise.resolve<string | undefined>(undefined);
    },
  };

  readonly show = {
    plan: () => ({ ...this.records, reach: [] }),
    lamps: () =>
      Promise.resolve({
        lamp: this.records.lamp,
        type: this.records.type,
        runs: this.records.run.map(({ number }) => number),
      }),
  };
}
