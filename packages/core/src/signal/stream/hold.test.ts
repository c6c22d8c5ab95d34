import { artnetSync, sacnSync } from '.';

test.each([
  ['no synchronisation address', 0, false, 990, 'act'],
  ['never synchronised yet', 7, false, -Infinity, 'act'],
  ['synchronised', 7, false, 990, 'hold'],
  ['synchronised, Force_Synchronization set', 7, true, 990, 'hold'],
  ['synchronisation lost, Force_Synchronization clear', 7, false, -1501, 'hold'],
  ['synchronisation lost, Force_Synchronization set', 7, true, -1501, 'act'],
  ['just not lost yet', 7, true, -1500, 'hold'],
] as const)('sACN: %s', (_, address, force, last, act) => expect(sacnSync(address, force, last, 1000)).toBe(act));

test.each([
  ['never synchronised', 1, -Infinity, 'act'],
  ['synchronised by its sender', 1, 900, 'hold'],
  ['two sources are merged', 2, 900, 'act'],
  ['no ArtSync for 4 s', 1, -3001, 'act'],
] as const)('Art-Net: %s', (_, sources, last, act) => expect(artnetSync(sources, last, 1000)).toBe(act));
