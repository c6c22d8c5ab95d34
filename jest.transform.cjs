/** TypeScript for Node as it runs there: types taken away, nothing else. */
const { createHash } = require('node:crypto');
const { transformSync, version } = require('esbuild');

const OPTIONS = { loader: 'ts', format: 'cjs', target: 'node20', sourcemap: 'inline' };

module.exports = {
  process: (source, path) => ({ code: transformSync(source, { ...OPTIONS, sourcefile: path }).code }),
  getCacheKey: (source, path) =>
    createHash('sha256')
      .update(JSON.stringify([version, OPTIONS, path]))
      .update(source)
      .digest('hex'),
};
