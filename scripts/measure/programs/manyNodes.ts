/** Many stand-in nodes in one program: `manyNodes COUNT ARTNET-PORT SACN-PORT PANEL-PORT`; says `ready`. */
import { NodeBox } from '../../../apps/standins/src/node';
import { MODELS } from '@taxiarch/core/rig/library';

const [count, artnet, sacn, panel] = process.argv.slice(2).map(Number) as [number, number, number, number];
const model = MODELS.find(({ name }) => name === 'Quad 4')!;

for (let i = 0; i < count; i += 1) {
  const box = new NodeBox(
    {
      id: `node-${i}`,
      model,
      mac: [2, 0x7f, 0xf1, 1, i >> 8, i & 255],
      shortName: `Node ${i + 1}`,
      longName: '',
      address: `127.0.${10 + (i >> 7)}.${1 + (i & 127)}`,
      firmware: [1, 0],
      ports: [0, 1, 2, 3].map((port) => ({ wire: i * 16 + port, protocol: 'artnet' as const })),
    },
    { artnet, sacn, panel },
  );
  await box.start();
}
process.stdout.write('ready\n');
process.on('message', () => undefined);
process.on('disconnect', () => process.exit(0));
