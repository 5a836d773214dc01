import { connect, createServer, type AddressInfo, type Socket } from 'node:net';

/** A way to a server that can be cut and mended, as a network drops: what is under way ends, and nothing new comes through. */
export async function cuttable(serverUrl: string): Promise<{
  readonly url: string;
  readonly cut: () => void;
  readonly mend: () => void;
  readonly close: () => void;
}> {
  const { port, hostname } = new URL(serverUrl);
  const open = new Set<Socket>();
  let whole = true;
  const way = createServer((from) => {
    if (!whole) {
      from.destroy();
      return;
    }
    const to = connect(Number(port), hostname);
    for (const [one, other] of [
      [from, to],
      [to, from],
    ] as const) {
      open.add(one);
      one.pipe(other);
      one.on('error', () => other.destroy());
      one.on('close', () => {
        open.delete(one);
        other.destroy();
      });
    }
  });
  await new Promise<void>((go) => way.listen(0, '127.0.0.1', go));
  const cut = () => {
    whole = false;
    open.forEach((one) => one.destroy());
  };
  return {
    url: `http://127.0.0.1:${(way.address() as AddressInfo).port}`,
    cut,
    mend: () => (whole = true),
    close: () => {
      cut();
      way.close();
    },
  };
}
