/** The programs are tested as they run: built. */
module.exports = async () => {
  const { bundleScript } = await import('./scripts/bundle.mjs');
  const { buildPrograms } = await import(await bundleScript('programs'));
  await buildPrograms();
};
