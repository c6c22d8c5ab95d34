import { configure } from '@testing-library/dom';

// Whether something is hidden is worked out from all its ancestors' styles: half the time of a search by role.
configure({ defaultHidden: true });

/** Each test begins in a tab of its own. */
if (typeof sessionStorage !== 'undefined') beforeEach(() => sessionStorage.clear());
