/** Roll calls on the hung ship. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hungShip } from '@taxiarch/core/whole/demo';
import { rigOf } from '@taxiarch/core/rig/patch';
import { rollOf, type RollReply } from '@taxiarch/core/truth/roll';
import type { ProposedEdit } from '@taxiarch/core/show/edit';
import { HungNet } from '../../testing/hungNet';
import { LampSetter } from '../setter';
import { RollCall } from '../rollCall';

export const folder = mkdtempSync(join(tmpdir(), 'taxiarch-roll-'));

let folders = 0;

export function made(net = new HungNet()) {
  const said: string[] = [];
  const edits: ProposedEdit[] = [];
  const roll = new RollCall(
    mkdtempSync(join(folder, `${(folders += 1)}-`)),
    net.host,
    net.show,
    { say: (_, sentence) => said.push(sentence) },
    () => 0,
  );
  const setter = new LampSetter(roll, { propose: async (edit) => void edits.push(edit) });
  const reply = (records = net.records): RollReply => rollOf(records, rigOf(records).patch, roll.now());
  const call = async (): Promise<RollReply> => {
    await roll.call({});
    return reply();
  };
  const row = (number: number) => reply().rows.find((one) => one.number === number)!;
  return { net, rig: net.rig, roll, setter, reply, call, row, said, edits };
}

export const uidOf = (tag: string) => hungShip().lamp(tag).hung.uid;
