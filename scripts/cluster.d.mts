export interface Cluster {
  ownerUrl(database: string): string;
  appUrl(database: string): string;
  readonly database: string;
  readonly sessionSecret: string;
  /** Whether it ran before. */
  readonly found: boolean;
  running(): boolean;
  start(): Promise<void>;
  stop(): number | null;
}
export function startCluster(options: { folder: string; database?: string; durable?: boolean }): Promise<Cluster>;
