import { lazyPart } from '@/ui';

export default lazyPart(() =>
  import('@/areas/rig/universes/ChangeUniverses').then(({ ChangeUniverses }) => ChangeUniverses),
);
