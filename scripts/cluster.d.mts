export interface Cluster {
  ownerUrl(database: string): string;
  appUrl(database: string): string;
  readonly database: string;
  readonly sessionSecret: string;
  start(): Promise<void>;
  stop(): number | null;
}
export function clusterFolder(name: string): string;
export function startCluster(options: { folder: string; database?: string; durable?: boolean }): Promise<Cluster>;
