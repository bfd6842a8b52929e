import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';

/** A wire between two ends that a test can cut, as when the far end dies, and mend. */
export class Wire {
  private readonly open = new Set<Socket>();
  private server: Server | null = null;
  /** Answers as a gateway does whose server is away. */
  badGateway = false;

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
      if (this.badGateway) {
        near.on('error', () => near.destroy());
        near.once('data', () => near.end('HTTP/1.1 502 Bad Gateway\r\nconnection: close\r\ncontent-length: 0\r\n\r\n'));
        return;
      }
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

  /** Cuts what runs and takes new connections at once: a line that fails for a moment. */
  async flicker(): Promise<void> {
    for (const socket of this.open) socket.destroy();
    await new Promise((resolve) => setImmediate(resolve));
  }
}
