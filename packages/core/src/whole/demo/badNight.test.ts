import { networkFindings, networkRepairs } from '../../truth/check';
import { doctor, type LinkHeard } from '../../truth/link';
import { patchFindings, repairsOf, rigOf } from '../../rig/patch';
import { recordsAfter, refuseChanges, settleChanges, toMaps } from '../../show/edit';
import { checkRecord, emptyShow, KINDS, type ShowRecords } from '../../show/records';
import { badNight, nightFerry } from '.';

/** Where each fault is found: in the patch, in the plan of the network, or by the doctor of a link. */
interface PlantedFault {
  readonly what: string;
  readonly found: 'patch' | 'network' | 'doctor';
  /** Part of the sentence that tells of it */
  readonly says: RegExp;
}

const PLANTED: readonly PlantedFault[] = [
  { what: 'Two lamps at one address', found: 'patch', says: /Lamp 101 and lamp 102 overlap/ },
  { what: 'A lamp that reaches past 512', found: 'patch', says: /Lamp 550 .* past channel 512/ },
  { what: 'One address twice', found: 'network', says: /127\.0\.0\.31/ },
  { what: 'A mask that disagrees', found: 'network', says: /Foredeck node has the mask 255\.255\.255\.0/ },
  { what: 'A merge that the model lacks', found: 'network', says: /Quay node, port 1/ },
  {
    what: 'Numbering off by one',
    found: 'network',
    says: /Bridge desk sends 9-12 from Art-Net 0\.0\.9 on.*off by one/,
  },
  { what: 'A backup that is not below the main console', found: 'network', says: /Stern desk is the backup/ },
  { what: 'A port set to the other protocol', found: 'network', says: /Saloon node, port 2, is set to Art-Net/ },
  { what: 'A sender faster than DMX', found: 'network', says: /Porthole sends 13-38 60 times a second/ },
  { what: 'A visualiser that counts from the other number', found: 'doctor', says: /off by 1/ },
];

const silent = { universes: [], nodes: [], listeningSince: 0 } as unknown as LinkHeard;
/** What stands in the doctor's lists because of the plan, not because nothing is on the wire here. */
const planned = (records: ShowRecords) =>
  records.link
    .flatMap((link) => doctor(link, records, silent))
    .filter(({ name, state }) => state === 'must fix' && !['protocol', 'universes'].includes(name));
const inPatch = (records: ShowRecords) => patchFindings(rigOf(records).patch, records.universe);

const found = {
  patch: inPatch(badNight()).map(({ sentence }) => sentence),
  network: networkFindings(badNight()).map(({ sentence, evidence }) => [sentence, ...evidence].join(' ')),
  doctor: planned(badNight()).map(({ says }) => says),
};

test('it is a show that the door lets in', () => {
  const records = badNight();
  const changes = KINDS.flatMap((kind) => records[kind].map((after) => ({ kind, id: after.id, rev: null, after })));
  for (const { kind, after } of changes) expect(checkRecord(kind, after)).toMatchObject({ ok: true });
  const start = toMaps(emptyShow());
  expect(refuseChanges(start, settleChanges(start, changes, 1))).toBeUndefined();
});

test('ten things are wrong in it, and nothing in the good show', () => {
  expect(PLANTED).toHaveLength(10);
  expect(inPatch(nightFerry())).toEqual([]);
  expect(networkFindings(nightFerry())).toEqual([]);
  expect(planned(nightFerry())).toEqual([]);
});

test.each(PLANTED)('$what is found', ({ found: where, says }) =>
  expect(found[where]).toContainEqual(expect.stringMatching(says)),
);

test('each is mended by a repair that is offered, until nothing is left', () => {
  let records = badNight();
  const apply = (plan: { changes: Parameters<typeof recordsAfter>[1] }) => {
    records = recordsAfter(records, plan.changes);
  };
  for (let step = 0; step < 40; step += 1) {
    const [patch] = inPatch(records);
    const [network] = networkFindings(records);
    const sick = planned(records).find(({ repair }) => repair);
    let id = 0;
    if (patch) apply(repairsOf(rigOf(records), patch, () => `new-${(id += 1)}`)[0]!.plan);
    else if (network) apply(networkRepairs(records, network)[0]!.plan);
    else if (sick) apply(sick.repair!.plan);
  }
  expect(inPatch(records)).toEqual([]);
  expect(networkFindings(records)).toEqual([]);
  expect(planned(records)).toEqual([]);
});
