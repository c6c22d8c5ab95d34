/** `npm run typecheck` begins with this: the client's addresses as types. */
import { writeRouteTypes } from './routeTypes';

writeRouteTypes();
