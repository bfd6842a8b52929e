/** Share of the available water a tree uses before it closes its leaves: half (FAO-56 table 22, most trees). */
export const readilyShare = 0.5;

/**
 * Water stress coefficient of FAO-56, equation 84: 1 while less than what is readily available is used up, falling to 0
 * where all is.
 * @param depletionMm used up of `totalMm`, the same unit as it; `readily` is p, 0–1
 */
export function stressCoefficient(depletionMm: number, totalMm: number, readily: number = readilyShare): number {
  if (totalMm <= 0) return 0;
  const readilyMm = readily * totalMm;
  if (depletionMm <= readilyMm) return 1;
  return Math.max(0, (totalMm - depletionMm) / (totalMm - readilyMm));
}

/**
 * What is left of a store after a demand worked on it through a while, in closed form: the demand is met whole while the
 * store is above what is readily available, and in proportion to what is left below (equation 84 within the day). However
 * the while is cut, the sum is the same.
 * @param availableL above the wilting point; `totalL` at field capacity; `demandL` over the whole while; all litres, ≥ 0
 */
export function leftAfter(availableL: number, totalL: number, demandL: number, readily: number = readilyShare): number {
  if (demandL <= 0 || availableL <= 0) return Math.max(0, availableL);
  const threshold = (1 - readily) * totalL;
  if (availableL - demandL >= threshold) return availableL - demandL;
  const above = Math.max(0, availableL - threshold);
  const from = Math.min(availableL, threshold);
  return threshold <= 0 ? 0 : from * Math.exp(-(demandL - above) / threshold);
}
