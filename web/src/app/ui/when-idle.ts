/** Once the page has nothing to do, a second later at most; a browser that does not say so is given a moment. */
export function whenIdle(act: () => void): void {
  if (typeof requestIdleCallback === 'function') requestIdleCallback(act, { timeout: 1000 });
  else setTimeout(act, 200);
}

/** What can be done behind the first page waits so long: what the person opens comes first, ms. */
export const settleMs = 5_000;
