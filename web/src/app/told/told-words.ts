import { sayReason, type SpotLife, type UnitSystem } from '@sombra/core';

/** What a resident told of a tree, while nobody has looked since; `null` where nothing was. */
export function toldWords(life: SpotLife | null, units: UnitSystem): string | null {
  const because = life?.nextLook?.because;
  return because?.code === 'look_told' ? sayReason(because, units) : null;
}
