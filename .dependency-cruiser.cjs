/** Which part may import which: down only, and past no folder's face. */

/** The floors of the core, ground first: each a folder. A file may import from its own floor and those below. */
const FLOORS = ['base', 'protocol', 'signal', 'show', 'rig', 'network', 'truth', 'proving', 'files', 'whole'];
const upwards = FLOORS.slice(0, -1).map((floor, i) => ({
  name: `${floor}-only-down`,
  severity: 'error',
  from: { path: `^packages/core/src/${floor}/`, pathNot: ['\\.test\\.ts$', '/testing/'] },
  to: { path: `^packages/core/src/(${FLOORS.slice(i + 1).join('|')})/` },
}));

module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot: [
          '^packages/core/src',
          'node_modules/(yup|fast-deep-equal|fflate|saxes|@e965/xlsx|papaparse|iconv-lite|ipaddr\\.js|dayjs)/',
        ],
      },
    },
    {
      name: 'apps-are-strangers',
      comment: 'The apps meet on HTTP, WebSocket and UDP only.',
      severity: 'error',
      from: { path: '^apps/([^/]+)/' },
      to: { path: '^apps/([^/]+)/', pathNot: '^apps/$1/' },
    },
    {
      name: 'through-the-face',
      comment: 'Each folder of the core is used by its index.',
      severity: 'error',
      from: { path: '^packages/core/src/([^/]+/[^/]+)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/[^/]+/[^/]+/(?!index\\.ts$)', pathNot: '^packages/core/src/$1/' },
    },
    {
      name: 'tests-through-the-face',
      comment: 'Tests may use what another folder made for its own tests.',
      severity: 'error',
      from: { path: '^packages/core/src/([^/]+/[^/]+)/.*\\.test\\.ts$' },
      to: { path: '^packages/core/src/[^/]+/[^/]+/(?!index\\.ts$|testing/)', pathNot: '^packages/core/src/$1/' },
    },
    {
      name: 'routes-are-thin',
      severity: 'error',
      from: { path: '^apps/client/src/app/' },
      to: { path: '^packages/' },
    },
    {
      name: 'design-knows-no-area',
      severity: 'error',
      from: { path: '^apps/client/src/(ui|data)/' },
      to: { path: '^apps/client/src/(areas|app)/' },
    },
    { name: 'no-circles', comment: 'Types included.', severity: 'error', from: {}, to: { circular: true } },
    ...upwards,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: ['\\.build', 'public/'] },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.lint.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      mainFields: ['module', 'main'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
};
