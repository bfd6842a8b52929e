import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';

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
    return this.context.pages()[0] ?? (await this.context.newPage());
  }

  async close(): Promise<void> {
    await this.context?.close();
    this.context = null;
  }

  async throwAway(): Promise<void> {
    await this.close();
    await rm(this.folder, { recursive: true, force: true });
  }
}
