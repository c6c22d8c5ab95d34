/** A node that is set over the network, by the packets of Art-Net. */
import { type Socket } from 'node:dgram';
import {
  ArtNet,
  decodeArtNet,
  encodeAddress,
  encodeIpProg,
  encodePoll,
  portsOf,
  type ArtNetMessage,
  type ArtPollReply,
  type DevicePort,
} from '@taxiarch/core/protocol/artnet';

import { begin, end, open, panel, portOf, ports, runStandIns, until } from './testing/standIns';

runStandIns();

describe('a node set over the network', () => {
  const heard: { message: ArtNetMessage; from: string }[] = [];
  let socket: Socket;
  beforeAll(async () => {
    socket = await open('127.0.0.93', ports.artnet);
    socket.on('message', (bytes, { address }) => {
      const decoded = decodeArtNet(bytes);
      if (decoded.ok) heard.push({ message: decoded.value, from: address });
    });
  });
  beforeEach(() => heard.splice(0));

  const tell = (bytes: Uint8Array, host: number) => socket.send(bytes, ports.artnet, `127.0.0.${host}`);
  /** The first page with which a host answers, as soon as it says what is asked. */
  const says = (host: number, met: (page: ArtPollReply) => boolean) =>
    until(
      async () =>
        heard.flatMap(({ message, from }) =>
          from === `127.0.0.${host}` && message.kind === 'pollReply' ? [message] : [],
        ),
      (pages) => pages.some(met),
    );

  test('Address sets names, universes, merge and loss of signal, and is answered', async () => {
    tell(encodeAddress({ portName: 'Deck A', netSwitch: 0x80, subSwitch: 0x80, swOut: [0x89, 0x7f, 0x7f, 0x7f] }), 33);
    tell(encodeAddress({ command: ArtNet.AcMergeLtp + 1 }), 33);
    tell(encodeAddress({ command: ArtNet.AcFailFull }), 33);
    tell(encodeAddress({ command: ArtNet.AcLedLocate }), 33);
    await says(33, (page) => {
      const [one, two] = portsOf(page);
      return (
        page.portName === 'Deck A' &&
        one?.portAddress === 9 &&
        two?.ltp === true &&
        (page.status3 & 0xc0) === ArtNet.STATUS3_FAIL_FULL &&
        (page.status1 & 0xc0) === 0x40
      );
    });
  });

  const port = (at: number, met: (port: DevicePort) => boolean) => (page: ArtPollReply) => {
    const found = page.bindIndex === 1 && portsOf(page).find(({ index }) => index === at);
    return found ? met(found) : false;
  };
  const indicators = (bits: number) => (page: ArtPollReply) => (page.status1 & 0xc0) === bits;
  const fails = (bits: number) => (page: ArtPollReply) => (page.status3 & 0xc0) === bits;

  test.each([
    ['LED mute', ArtNet.AcLedMute, indicators(0x80)],
    ['LED locate', ArtNet.AcLedLocate, indicators(0x40)],
    ['LED normal', ArtNet.AcLedNormal, indicators(0xc0)],
    ['fail to zero', ArtNet.AcFailZero, fails(ArtNet.STATUS3_FAIL_ZERO)],
    ['fail to full', ArtNet.AcFailFull, fails(ArtNet.STATUS3_FAIL_FULL)],
    ['fail to a scene', ArtNet.AcFailScene, fails(ArtNet.STATUS3_FAIL_SCENE)],
    ['fail to hold', ArtNet.AcFailHold, fails(ArtNet.STATUS3_FAIL_HOLD)],
    ['merge LTP', ArtNet.AcMergeLtp + 2, port(2, ({ ltp }) => ltp)],
    ['merge HTP', ArtNet.AcMergeHtp + 2, port(2, ({ ltp }) => !ltp)],
    ['Art-Net', ArtNet.AcArtNetSel + 3, port(3, ({ sacn }) => !sacn)],
    ['sACN', ArtNet.AcAcnSel + 3, port(3, ({ sacn }) => sacn)],
    ['RDM on', ArtNet.AcRdmEnable + 1, port(1, ({ rdm }) => rdm)],
    ['RDM off', ArtNet.AcRdmDisable + 1, port(1, ({ rdm }) => !rdm)],
    ['in', ArtNet.AcDirectionRx + 3, port(3, ({ direction }) => direction === 'in')],
    ['out', ArtNet.AcDirectionTx + 3, port(3, ({ direction }) => direction === 'out')],
  ])('command: %s', async (_, command, met) => {
    tell(encodeAddress({ command }), 33);
    await says(33, met);
  });

  test('a look recorded, and a merge cancelled', async () => {
    tell(encodeAddress({ swOut: [0x82, 0x7f, 0x7f, 0x7f] }), 33);
    await panel(21, 'fader', { universe: 2, channel: 1, level: 200 });
    await until(
      () => portOf(33, 1),
      ({ output }) => output.some((level) => level > 0),
    );
    tell(encodeAddress({ command: ArtNet.AcFailRecord }), 33);
    tell(encodeAddress({ command: ArtNet.AcCancelMerge }), 33);
    await until(
      async () => (await panel(33, 'settings')).body as { ports: { look: number[] }[] },
      ({ ports: kept }) => kept[0]!.look.some((level) => level > 0),
    );
    expect((await portOf(33, 1)).sources.length).toBeLessThanOrEqual(1);
    await panel(21, 'fader', { universe: 2, channel: 1, level: null });
    heard.splice(0);
    tell(encodeAddress({ swOut: [0x89, 0x7f, 0x7f, 0x7f] }), 33);
    await says(33, (page) => portsOf(page)[0]?.portAddress === 9);
  });

  test('what was set survives the power', async () => {
    await end();
    await begin();
    tell(encodePoll(), 33);
    await says(33, (page) => page.portName === 'Deck A' && portsOf(page)[0]?.portAddress === 9);
    tell(
      encodeAddress({
        portName: 'Car deck node',
        netSwitch: 0x80,
        subSwitch: 0x80,
        swOut: [0x82, 0x7f, 0x7f, 0x7f],
        command: ArtNet.AcMergeHtp + 1,
      }),
      33,
    );
    tell(encodeAddress({ command: ArtNet.AcFailHold }), 33);
    await says(33, (page) => page.portName === 'Car deck node' && portsOf(page)[0]?.portAddress === 2);
  });

  test('IpProg moves it; it answers at its new address and no more at the old', async () => {
    const command = ArtNet.IPPROG_ENABLE | ArtNet.IPPROG_ADDRESS;
    tell(encodeIpProg({ command, ip: '127.0.0.83' }), 33);
    await until(
      async () => heard.find(({ message }) => message.kind === 'ipProgReply')?.message,
      (reply) => reply?.kind === 'ipProgReply' && reply.ip === '127.0.0.83',
    );
    await until(
      async () => {
        tell(encodePoll(), 83);
        return heard.filter(({ from, message }) => from === '127.0.0.83' && message.kind === 'pollReply').length;
      },
      (count) => count >= 2,
    );
    heard.splice(0);
    tell(encodePoll(), 33);
    await new Promise((done) => setTimeout(done, 150));
    expect(heard.filter(({ from }) => from === '127.0.0.33')).toEqual([]);
    tell(encodeIpProg({ command, ip: '127.0.0.33' }), 83);
    await until(
      async () => {
        tell(encodePoll(), 33);
        return heard.some(({ from, message }) => from === '127.0.0.33' && message.kind === 'pollReply');
      },
      (there) => there,
    );
  });
});
