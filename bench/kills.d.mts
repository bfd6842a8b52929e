export interface KillReport {
  readonly acknowledged: number;
  readonly missing: number;
  readonly rebuilt: number | null;
  readonly said: string;
}
export function kills(rounds: { serverKills: number; databaseKills: number }): Promise<KillReport>;
