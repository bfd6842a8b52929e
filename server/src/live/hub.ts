import pg from 'pg';

export type Listener = (payload: string) => void;
interface Subscription {
  readonly listener: Listener;
  /** Whose stream it is: it ends with the session. */
  readonly session: string | null;
}

/** Passes on what any server process says changed: one connection listens for all who look. */
export class LiveHub {
  private readonly subscriptions = new Set<Subscription>();
  private client: pg.Client | null = null;
  private retry: NodeJS.Timeout | null = null;
  private stopped = false;

  constructor(
    private readonly url: string,
    private readonly onWarning: (error: unknown) => void,
  ) {}

  /** Resolves once it listens, or once a first try failed and another is planned. */
  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.url, application_name: 'sombra-live' });
    const lost = (error?: unknown) => {
      if (this.client !== client) return;
      this.client = null;
      if (error) this.onWarning(error);
      if (!this.stopped) this.retry = setTimeout(() => void this.start(), 1000);
    };
    this.client = client;
    client.on('error', lost);
    client.on('end', () => lost());
    client.on('notification', ({ channel, payload = '' }) =>
      channel === 'sombra_ended' ? this.end(payload) : this.say(payload || '{}'),
    );
    try {
      await client.connect();
      await client.query('listen sombra_changed; listen sombra_ended');
      // What happened while nobody listened is not known: everybody looks again.
      this.say('{"spots":null}');
    } catch (error) {
      lost(error);
    }
  }

  subscribe(listener: Listener, session: string | null = null): () => void {
    const subscription = { listener, session };
    this.subscriptions.add(subscription);
    return () => this.subscriptions.delete(subscription);
  }

  /** Ends the streams of a session that is over. */
  private end(session: string): void {
    for (const one of this.subscriptions) if (one.session === session) one.listener('');
  }

  async stop(): Promise<void> {
    this.stopped = true;
    if (this.retry) clearTimeout(this.retry);
    const client = this.client;
    this.client = null;
    this.say('');
    await client?.end().catch(() => undefined);
  }

  private say(payload: string): void {
    for (const { listener } of this.subscriptions) listener(payload);
  }
}
