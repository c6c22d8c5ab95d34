import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/rig/files/FilesPage').then(({ FilesPage }) => FilesPage));
