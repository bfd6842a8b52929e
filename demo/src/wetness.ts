import { referenceEtMm, type IsoDate, type WeatherDay } from '@sombra/core';
import { station } from './weather';

/** Rain of the fortnight before a day less what a young tree's ground gives up meanwhile, mm. */
export type Wetness = (on: IsoDate) => number;

const fortnight = 14;
/** A young crown with mulch over its roots asks for about half of what a short crop would. */
const share = 0.5;

export function wetnessOf(days: readonly WeatherDay[]): Wetness {
  const left = new Map<IsoDate, number>();
  const daily = days.map((day) => day.rainMm - share * referenceEtMm(day, station));
  let sum = 0;
  days.forEach(({ day }, i) => {
    sum += (daily[i] ?? 0) - (daily[i - fortnight] ?? 0);
    left.set(day, sum);
  });
  return (on) => left.get(on) ?? 0;
}
