module.exports = async () => {
  await globalThis.sombraTestCluster?.stop();
};
