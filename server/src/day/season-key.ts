import { addMonthsTo, InvalidInputError, type IsoDate } from '@sombra/core';
import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { mkdir, open, readFile, readdir, rm } from 'node:fs/promises';
import path from 'node:path';

/** A planting season runs from July to June, and is named after the year it begins in. */
export const seasonOf = (day: IsoDate): string => addMonthsTo(day, -6).slice(0, 4);
const endOf = (season: string): IsoDate => `${Number(season) + 1}-06-30`;

/**
 * Keys under which what people told in confidence is kept, one a season, each a file of 32 bytes in a folder that no
 * backup holds. Once its file is gone nobody reads that season's rows again, in no backup either.
 */
export class SeasonKeys {
  constructor(private readonly folder: string) {}

  private file(season: string): string {
    if (!/^\d{4}$/.test(season)) throw new InvalidInputError('season must be a year', 'season');
    return path.join(this.folder, `${season}.key`);
  }

  /** Made where it is not there yet; of two servers that make it at once one wins, and both use that one. */
  private async key(season: string): Promise<Buffer> {
    await mkdir(this.folder, { recursive: true, mode: 0o700 });
    try {
      const handle = await open(this.file(season), 'wx', 0o600);
      try {
        await handle.writeFile(randomBytes(32));
        await handle.sync();
      } finally {
        await handle.close();
      }
    } catch (error) {
      if ((error as { code?: unknown }).code !== 'EEXIST') throw error;
    }
    return readFile(this.file(season));
  }

  /** AES-256-GCM; bound to the person, so that no row can be put in another's place. */
  async seal(season: string, personId: string, facts: unknown): Promise<Buffer> {
    const iv = randomBytes(12);
    const cipher = createCipheriv('aes-256-gcm', await this.key(season), iv).setAAD(Buffer.from(personId));
    const body = Buffer.concat([cipher.update(JSON.stringify(facts), 'utf8'), cipher.final()]);
    return Buffer.concat([iv, cipher.getAuthTag(), body]);
  }

  /** `null` once the season's key is destroyed. */
  async unseal(season: string, personId: string, sealed: Buffer): Promise<unknown> {
    const key = await readFile(this.file(season)).catch(() => null);
    if (!key) return null;
    const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, 12)).setAAD(Buffer.from(personId));
    decipher.setAuthTag(sealed.subarray(12, 28));
    const text = Buffer.concat([decipher.update(sealed.subarray(28)), decipher.final()]).toString('utf8');
    return JSON.parse(text) as unknown;
  }

  /** Destroys the keys of seasons that are over. Returns which. */
  async destroyOver(today: IsoDate): Promise<string[]> {
    const files = await readdir(this.folder).catch(() => []);
    const over = files
      .flatMap((file) => (/^(\d{4})\.key$/.exec(file)?.[1] ?? '') || [])
      .filter((season) => endOf(season) < today);
    for (const season of over) await rm(this.file(season), { force: true });
    return over;
  }
}
