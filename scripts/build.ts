/** `npm run build`: the programs and the screens, as `npm start` and the tests run them. */
import { buildClient } from './client';
import { buildPrograms } from './programs';

await Promise.all([buildPrograms(), buildClient()]);
process.exit(0);
