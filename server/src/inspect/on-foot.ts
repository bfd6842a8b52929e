/** People on foot in a search for rounds that is made for trucks: nobody carries water. */
export const onFoot = { tankL: 1, pourLPerMin: 1 } as const;

/** To begin and to end a round costs no way: everybody gets to their first tree by themselves. */
export function openEnded(metres: readonly (readonly number[])[], people: number): number[][] {
  const free = Array.from({ length: people }, () => 0);
  return [...metres.map((row) => [...row, ...free]), ...free.map(() => [...metres.map(() => 0), ...free])];
}
