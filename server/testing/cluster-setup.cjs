/** Starts a cluster for the tests of this run, with one migrated database that each suite copies. */
module.exports = async () => {
  const { startTestCluster } = await import('../../scripts/test-cluster.mjs');
  globalThis.sombraTestCluster = await startTestCluster();
};
