import type { Page } from '@playwright/test';
import type { Assign, Session, SpotList } from '@sombra/contract';
import { randomUUID } from 'node:crypto';
import { expect, type Town } from './town';

/** What the coordinator sends out, by the doors the desk uses. */
export class Desk {
  private constructor(
    private readonly page: Page,
    private readonly town: Town,
    private readonly session: Session,
  ) {}

  static async of(page: Page, town: Town): Promise<Desk> {
    return new Desk(page, town, (await (await page.request.get(`${town.url}/api/session`)).json()) as Session);
  }
  async get<T>(door: string): Promise<T> {
    return (await (await this.page.request.get(this.town.url + door)).json()) as T;
  }
  async refs(query: string, count: number): Promise<{ id: string; ref: string }[]> {
    const { lines } = await this.get<SpotList>(`/api/spots?${query}&limit=${count}`);
    return lines.map(({ spotId, ref }) => ({ id: spotId, ref }));
  }
  async assign(role: string, change: Partial<Assign>): Promise<string> {
    const people = await this.get<{ id: string; role: string }[]>('/api/assignments/people');
    const data = {
      id: randomUUID(),
      kind: 'looks',
      title: 'Round',
      userId: people.find((one) => one.role === role)?.id,
      until: this.session.today,
      spotIds: [],
      deliveryId: null,
      ...change,
    };
    const headers = { 'x-csrf-token': this.session.csrfToken };
    const answer = await this.page.request.post(`${this.town.url}/api/assignments`, { headers, data });
    expect(await answer.text()).toContain(data.id);
    return data.id;
  }
}

/** On the page of what was taken along, once all of it is on the device. */
export const ready = async (page: Page, town: { url: string }) => {
  await page.goto(`${town.url}/along`);
  await expect(page.getByText(/^Ready for \d+ trees?, [\d.]+ MB, \d\d:\d\d$/)).toBeVisible({ timeout: 90_000 });
  await expect(page.getByText(/the map around them/)).toBeVisible();
};
