import { lazyPart } from '@/ui';

export default lazyPart(() => import('@/areas/prove/whatif/WhatIfPage').then(({ WhatIfPage }) => WhatIfPage));
