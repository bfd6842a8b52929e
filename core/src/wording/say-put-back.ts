import { formatQuantity, type UnitSystem } from '../units';

/** What a hole that was dug too deep asks for, in a sentence; `overDug` works it out. */
export function sayPutBack(
  { putBackMm, settlementMm }: { readonly putBackMm: number; readonly settlementMm: number },
  units: UnitSystem,
): string {
  const say = (mm: number) => formatQuantity(mm, 'lengthMm', units);
  return `Dug ${say(putBackMm)} too deep: put ${say(putBackMm)} back and firm it in layers. It still settles about ${say(settlementMm)}: stand the flare that much higher.`;
}
