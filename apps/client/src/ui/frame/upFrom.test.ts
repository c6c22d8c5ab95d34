import { isList, upFrom } from './upFrom';

test.each([
  ['/', undefined],
  ['/rig', '/'],
  ['/why', '/'],
  ['/show', '/'],
  ['/nowhere/at/all', '/'],
  ['/wire/adapters/a1', '/wire/adapters'],
  ['/rig/lamp-101', '/rig'],
  ['/rig/types', '/rig'],
  ['/rig/types/spot', '/rig/types'],
  ['/rig/controllers/machine-funnel', '/rig/pixels'],
  ['/listen/u7', '/listen'],
  ['/wire/machine-quay', '/wire'],
  ['/wire/ports/machine-quay', '/wire/machine-quay'],
  ['/wire/change/machine-quay', '/wire/machine-quay'],
  ['/wire/change/new', '/wire'],
  ['/flow/map', '/flow'],
  ['/flow/links', '/flow'],
  ['/flow/links/compare', '/flow/links'],
])('up from %s leads to %s', (path, above) => expect(upFrom(path)).toBe(above));

test('lists are those that pages belong to, and the areas’ own', () => {
  for (const list of ['/', '/rig', '/flow/links', '/prove/walks']) expect(isList(list)).toBe(true);
  for (const page of ['/rig/lamp-101', '/flow/map', '/why', '/show']) expect(isList(page)).toBe(false);
});
