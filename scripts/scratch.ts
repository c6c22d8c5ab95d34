import { why } from '@taxiarch/core/diagnose';
import { matchMachines, heardMachines } from '@taxiarch/core/node';
import { Patch } from '@taxiarch/core/patch';
const B = 'http://127.0.0.1:4630';
const get = async (p: string) => (await fetch(B + p)).json() as any;
const { records } = await get('/api/show');
const patch = new Patch(records.lamp, records.type, records.run, records.machine);
const live = await get('/api/live');
const entries = matchMachines(records, heardMachines(live));
const all: any[] = process.argv.slice(2).map((t) => { const [kind, id, part = ''] = t.split(':'); return { kind, id, part }; });
if (all.length === 0) {
  for (const u of records.universe) all.push({ kind: 'universe', id: String(u.number), part: '' });
  for (const m of records.machine) all.push({ kind: 'machine', id: m.id, part: '' });
  for (const l of records.link) all.push({ kind: 'link', id: l.id, part: '' });
}
let most = 0;
for (const about of all) {
  const r = why(about, records, patch, live, entries, () => performance.now());
  most = Math.max(most, r.took);
  if (all.length < 6) console.log(JSON.stringify(r, null, 1));
  else if (r.sure !== 'as planned' && r.sure !== 'not known') console.log(about.kind, about.id, r.sure, r.sentence, r.took.toFixed(1), r.suspects[0]?.against);
}
console.log('slowest', most.toFixed(1));
