/** Each test begins in a tab of its own. */
if (typeof sessionStorage !== 'undefined') beforeEach(() => sessionStorage.clear());
