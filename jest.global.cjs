/** The programs are tested as they run: built. */
module.exports = async () => {
  const { buildPrograms } = await import('./scripts/build.mjs');
  await buildPrograms();
};
