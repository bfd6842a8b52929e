/**
 * Does an act again and again in the background, one at a time and never before the one before has ended, until it is
 * stopped; what fails is told and tried again.
 * @returns stops it, once the act under way has ended
 */
export function keepDoing(
  act: () => Promise<unknown>,
  { everyMs, onError }: { readonly everyMs: number; readonly onError: (error: unknown) => void },
): () => Promise<void> {
  let running = Promise.resolve();
  let busy = false;
  const timer = setInterval(() => {
    if (busy) return;
    busy = true;
    running = act()
      .then(() => undefined, onError)
      .finally(() => (busy = false));
  }, everyMs);
  timer.unref();
  return async () => {
    clearInterval(timer);
    await running;
  };
}
