import type { Locator, Page } from '@playwright/test';

/** Hands at work: counts each key and each tap, as somebody does who does it all day. */
export class Hands {
  count = 0;
  private readonly started = Date.now();

  constructor(
    private readonly page: Page,
    private readonly by: 'mouse' | 'thumb' = 'mouse',
  ) {}

  async keys(...keys: readonly string[]): Promise<void> {
    for (const key of keys) {
      this.count += 1;
      await this.page.keyboard.press(key);
    }
  }

  async type(text: string): Promise<void> {
    this.count += text.length;
    await this.page.keyboard.type(text);
  }

  async tap(target: Locator, modifiers: ('Shift' | 'Control')[] = []): Promise<void> {
    this.count += 1;
    if (this.by === 'thumb') await target.tap();
    else await target.click({ modifiers });
  }

  /** In words, for who reads the run; nothing asserts on the time. */
  says(task: string): string {
    return `${task}: ${this.count} interactions, ${((Date.now() - this.started) / 1000).toFixed(1)} s`;
  }
}
