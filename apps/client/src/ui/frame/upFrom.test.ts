import { upFrom } from './upFrom';

test.each([
  ['/rig', undefined],
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
])('back from %s leads to %s', (path, above) => expect(upFrom(path)).toBe(above));
