/** Room this browser may still fill, bytes; `null` where it does not say. */
export async function roomLeft(): Promise<number | null> {
  try {
    const { quota, usage } = await navigator.storage.estimate();
    return quota === undefined ? null : quota - (usage ?? 0);
  } catch {
    return null;
  }
}
