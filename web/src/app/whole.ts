import { bootstrapApplication, createApplication } from '@angular/platform-browser';
import { App } from './app';
import { appConfig } from './app.config';

/** The whole application. */
export const open = (): Promise<unknown> => bootstrapApplication(App, appConfig);

/** Fetches what most people see first. */
export function fetchFirstViews(): void {
  const frame = [import('./frame/rail'), import('./season/season-band-view')];
  void Promise.all([import('./people/landing'), import('./desk/desk-page'), ...frame]).catch(() => undefined);
}

/** What somebody left sealed on this device goes out while nobody is in. @returns ends it */
export async function sendSealed(): Promise<() => void> {
  const { SealingService } = await import('./offline/sealing.service');
  const unseen = await createApplication(appConfig);
  unseen.injector.get(SealingService);
  return () => unseen.destroy();
}
