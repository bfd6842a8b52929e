import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** What phones showed last and what their pages complained of, told where a test fails: a phone is no page of its own. */
const seen: string[] = [];
export const takeSeen = (): readonly string[] => seen.splice(0);

type Launch = Parameters<typeof chromium.launchPersistentContext>[1];

/** A phone whose browser is closed and started anew, and keeps what it kept. */
export class Phone {
  private context: BrowserContext | null = null;
  private constructor(
    private readonly folder: string,
    private readonly launch: Launch,
  ) {}

  static async made(launch: Launch): Promise<Phone> {
    return new Phone(await mkdtemp(path.join(tmpdir(), 'sombra-phone-')), launch);
  }

  async open(): Promise<Page> {
    this.context = await chromium.launchPersistentContext(this.folder, {
      ...this.launch,
      viewport: { width: 390, height: 844 },
      serviceWorkers: 'allow',
      geolocation: { longitude: -25.4, latitude: 36.9 },
      permissions: ['geolocation', 'camera'],
      acceptDownloads: true,
    });
    // A press that finds nothing is told of soon, not when the whole test ends.
    this.context.setDefaultTimeout(20_000);
    this.context.on('console', (word) => {
      if (word.type() === 'error') seen.push(`  said: ${word.text()}`);
    });
    this.context.on('weberror', (error) => seen.push(`  failed: ${error.error().stack ?? ''}`));
    return this.context.pages()[0] ?? (await this.context.newPage());
  }

  async close(): Promise<void> {
    await this.context?.close();
    this.context = null;
  }

  async throwAway(): Promise<void> {
    for (const page of this.context?.pages() ?? []) {
      const text = await page
        .locator('body')
        .innerText({ timeout: 1000 })
        .catch(() => 'shows nothing');
      seen.push(`phone at ${page.url()}\n${text.replaceAll(/\n+/g, ' | ')}`);
    }
    await this.close();
    await rm(this.folder, { recursive: true, force: true });
  }
}
