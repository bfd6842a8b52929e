export interface TlsProxy {
  readonly url: string;
  stop(): Promise<void>;
}
export function startTls(options: { target: number; folder: string; port?: number }): Promise<TlsProxy>;
