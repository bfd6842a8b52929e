/** A stream of numbers from a seed: the same seed gives the same town. */
export interface Dice {
  /** 0 ≤ x < 1 */
  next(): number;
  between(low: number, high: number): number;
  whole(low: number, high: number): number;
  /** About normal, by the sum of twelve throws (Irwin–Hall). */
  around(mean: number, deviation: number): number;
  pick<T>(options: readonly [T, ...T[]]): T;
  chance(probability: number): boolean;
}

/** mulberry32, a small public-domain generator, over an FNV-1a hash of the seed. */
export function dice(seed: string): Dice {
  let state = 2166136261;
  for (const char of seed) state = Math.imul(state ^ char.charCodeAt(0), 16777619);
  const next = (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const between = (low: number, high: number) => low + (high - low) * next();
  return {
    next,
    between,
    whole: (low, high) => Math.floor(between(low, high + 1)),
    around: (mean, deviation) => {
      let sum = 0;
      for (let i = 0; i < 12; i++) sum += next();
      return mean + (sum - 6) * deviation;
    },
    pick: (options) => options[Math.floor(next() * options.length)] ?? options[0],
    chance: (probability) => next() < probability,
  };
}

/** A UUID of version 7 for an instant, its random bits from the dice. */
export function seededUuid(instantMs: number, from: Dice): string {
  const time = Math.max(0, Math.floor(instantMs)).toString(16).padStart(12, '0');
  const hex = (digits: number) => Array.from({ length: digits }, () => from.whole(0, 15).toString(16)).join('');
  const variant = from.pick(['8', '9', 'a', 'b']);
  return `${time.slice(0, 8)}-${time.slice(8, 12)}-7${hex(3)}-${variant}${hex(3)}-${hex(12)}`;
}
