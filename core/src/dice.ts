/** A generator of its own, so that a plan can be made again (Park and Miller 1988). */
export function dice(seed: number): () => number {
  let state = (Math.abs(Math.trunc(seed)) % 2147483646) + 1;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}
