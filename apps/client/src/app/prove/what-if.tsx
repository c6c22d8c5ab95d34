export { WhatIfPage as default } from '@/areas/prove/whatif/WhatIfPage';
