/** Turns the event loop until something is there, and gives it; what never comes ends the test with a word. */
export async function until<T>(found: () => T | null | undefined | false, what = 'what was waited for'): Promise<T> {
  for (let turns = 0; turns < 400; turns++) {
    const here = found();
    if (here !== null && here !== undefined && here !== false) return here;
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  throw new Error(`${what} did not come`);
}
