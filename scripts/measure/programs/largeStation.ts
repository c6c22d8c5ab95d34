/** A station with a rig of so many lamps: it commits it whenever it is told to, with the comment that it is told. */
import { HeldRig } from '../../../apps/standins/src/exchange/heldRig';
import { StationBox } from '../../../apps/standins/src/exchange/station';
import { largeRig } from '../large';

const [lamps, mdnsPort] = process.argv.slice(2).map(Number);
const held = largeRig(lamps!);
const rig = new HeldRig(held, held);
// Written before anybody waits for it.
rig.bytes();
const setup = {
  ...{ stationId: '7ff00000-0000-4000-8000-1a2600000001', name: 'Great desk', provider: 'measure' },
  ...{ address: '127.0.0.55', mdnsPort: mdnsPort! },
};
const station = new StationBox(setup, rig);
process.on('message', (comment: string) => {
  station.commit(comment);
  process.send!(Date.now());
});
void station.start().then(() => process.stdout.write('there\n'));
