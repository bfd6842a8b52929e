import { soakRules, type SoakRule } from '../practice';
import { followWater, reachesOf, waterStart, type ClimateDay, type WaterSubject } from './follow';

/** What a first soak is judged by: the weeks before anybody need come again. Days */
export const soakTriedDays = 60;

export interface SoakTrial {
  readonly rule: SoakRule;
  /** Poured at planting. L */
  readonly litres: number;
  /** Until the tree asks for water where nobody comes; `null` where it does not ask in the days tried. */
  readonly asksAfterDays: number | null;
  readonly stressDays: number;
  readonly waterloggedDays: number;
  /** Of the days tried. */
  readonly days: number;
}

/**
 * What a tree would have gone through after each school's first soak, in the same weather, with nobody coming after it.
 * @param litres by rule, as the plan of this pit gives them
 * @param climate from planting on; as many days as are known, `soakTriedDays` at most
 */
export function compareSoaks({
  subject,
  litres,
  climate,
}: {
  readonly subject: WaterSubject;
  readonly litres: Readonly<Record<SoakRule, number>>;
  readonly climate: readonly ClimateDay[];
}): SoakTrial[] {
  const days = climate.slice(0, soakTriedDays);
  const [first] = days;
  if (!first) return [];
  return (Object.keys(soakRules) as SoakRule[]).map((rule) => {
    const poured = litres[rule] * reachesOf(subject);
    const start = waterStart(subject, first.day);
    const followed = followWater(subject, start, days, { doses: [[first.day, poured]], readings: [] });
    const asks = followed.days.findIndex((one) => one.asks);
    return {
      rule,
      litres: litres[rule],
      asksAfterDays: asks < 0 ? null : asks,
      stressDays: followed.to.stressDays,
      waterloggedDays: followed.to.waterloggedDays,
      days: days.length,
    };
  });
}
