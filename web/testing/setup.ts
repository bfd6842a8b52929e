import '@angular/localize/init';
import 'fake-indexeddb/auto';
import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();

// jsdom lacks what the application uses of a browser's structured data.
globalThis.structuredClone ??= (value: unknown) => JSON.parse(JSON.stringify(value)) as never;

/** jsdom lays nothing out: sizes never change there. */
class StillObserver implements ResizeObserver {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
globalThis.ResizeObserver ??= StillObserver;
/** Pages of tests rest at once. */
globalThis.requestIdleCallback ??= (act) => {
  act({ didTimeout: false, timeRemaining: () => 50 });
  return 0;
};
Element.prototype.scrollTo ??= (): void => undefined;
