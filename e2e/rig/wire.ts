import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';

/** A wire between a server and its database that a test can cut, as when the database dies, and mend. */
export class Wire {
  private readonly open = new Set<Socket>();
  private server: Server | null = null;

  private constructor(
    private readonly target: number,
    private port: number,
  ) {}

  /** A wire to a port of this machine. */
  static async to(target: number): Promise<Wire> {
    const wire = new Wire(target, 0);
    await wire.mend();
    return wire;
  }

  /** The same address, through the wire. */
  through(url: string): string {
    const changed = new URL(url);
    changed.port = String(this.port);
    return changed.toString();
  }

  async mend(): Promise<void> {
    const server = createServer((near) => {
      const far = connect(this.target, '127.0.0.1');
      for (const [one, other] of [
        [near, far],
        [far, near],
      ] as const) {
        this.open.add(one);
        one.on('error', () => other.destroy());
        one.on('close', () => {
          this.open.delete(one);
          other.destroy();
        });
        one.pipe(other);
      }
    });
    this.server = server;
    await new Promise<void>((resolve) => server.listen(this.port, '127.0.0.1', resolve));
    this.port = (server.address() as AddressInfo).port;
  }

  cut(): void {
    this.server?.close();
    for (const socket of this.open) socket.destroy();
  }
}
