const { options } = require('./.dependency-cruiser.cjs');

/** No circle between folders, types included. Tests may look anywhere below and above, so they are left out here. */
module.exports = {
  forbidden: [
    {
      name: 'no-circles-of-folders',
      severity: 'error',
      scope: 'folder',
      from: { path: '^(packages/core/src|apps/[^/]+/src)/' },
      to: { circular: true },
    },
  ],
  options: { ...options, exclude: { path: [...options.exclude.path, '\\.test\\.tsx?$', '/testing/'] } },
};
