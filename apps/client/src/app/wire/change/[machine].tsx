import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/wire/machine/EditMachine').then(({ EditMachine }) => EditMachine));
