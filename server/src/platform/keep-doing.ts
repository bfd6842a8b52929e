/**
 * Does an act again and again in the background, one at a time and never before the one before has ended, until it is
 * stopped; what fails is told and tried again.
 * @returns stops it, once the act under way has ended
 */
export function keepDoing(
  act: () => Promise<unknown>,
  {
    everyMs,
    atOnce = false,
    onError,
  }: {
    readonly everyMs: number;
    /** Begins without waiting for the first time. */
    readonly atOnce?: boolean;
    readonly onError: (error: unknown) => void;
  },
): () => Promise<void> {
  let running = Promise.resolve();
  let busy = false;
  const turn = () => {
    if (busy) return;
    busy = true;
    running = act()
      .then(() => undefined, onError)
      .finally(() => (busy = false));
  };
  const timer = setInterval(turn, everyMs);
  timer.unref();
  if (atOnce) turn();
  return async () => {
    clearInterval(timer);
    await running;
  };
}
