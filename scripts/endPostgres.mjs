/** Stops and removes the cluster of the server's tests. */
export default function endPostgres() {
  globalThis.cordelCluster?.stop();
  globalThis.cordelCluster = undefined;
}
