/** Lamps that answer behind many nodes: `manyLamps LAMPS NODES LOSS ARTNET-PORT SACN-PORT PANEL-PORT`; says `ready`. */
import { NodeBox } from '../../../apps/standins/src/node';
import { HungLamp, HungRig } from '@taxiarch/core/truth/hung';
import { LIBRARY, MODELS } from '@taxiarch/core/rig/library';
import { formatUid } from '@taxiarch/core/protocol/rdm';

const [lamps, nodes, loss, artnet, sacn, panel] = process.argv.slice(2).map(Number) as [
  number,
  number,
  number,
  number,
  number,
  number,
];
const PORTS = 4;
const model = MODELS.find(({ name }) => name === 'Quad 4')!;
const type = LIBRARY.find(({ name }) => name === 'Petal 4')!;

const plugs = Array.from({ length: nodes * PORTS }, (_, i) => ({
  box: `node-${Math.floor(i / PORTS)}`,
  port: (i % PORTS) + 1,
}));
const rig = new HungRig(
  Array.from({ length: lamps }, (_, i) => {
    const order = Math.floor(i / plugs.length) + 1;
    return new HungLamp(
      {
        ...{ tag: String(i + 1), uid: formatUid(0x7ff2, i + 1), type, x: 0, y: 0, z: 0, order },
        plug: plugs[i % plugs.length]!,
        state: { address: 1 + (order - 1) * 5, personality: 2, label: `Lamp ${i + 1}`, values: { 0x0400: 100 } },
      },
      true,
    );
  }),
  Math.random,
);
for (const plug of plugs) rig.err(plug, { ragged: loss });

for (let i = 0; i < nodes; i += 1) {
  const box = new NodeBox(
    {
      ...{ id: `node-${i}`, model, mac: [2, 0x7f, 0xf1, 2, 0, i], shortName: `Node ${i + 1}`, longName: '' },
      ...{ address: `127.0.9.${1 + i}`, firmware: [1, 0] },
      ports: Array.from({ length: PORTS }, (_, port) => ({ wire: i * 16 + port, protocol: 'artnet' as const })),
    },
    { artnet, sacn, panel },
    undefined,
    rig,
  );
  await box.start();
}
process.stdout.write('ready\n');
