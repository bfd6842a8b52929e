import { addDaysTo, type IsoDate } from '../calendar';
import type { Species } from '../match';
import type { Practice } from '../practice';
import type { PlantingWindow } from '../season';
import type { Stock } from '../stock';
import { daysFrom, waterClimate, type ClimateDay, type WaterSubject } from '../water';
import { typicalDays, type Station, type TypicalYear } from '../weather';
import type { FieldRecord } from './record';
import type { SpotBasis } from './spot-basis';
import { waterInputs } from './tree-water';
import { typicalRingM2 } from './typical-tree';

/** Watering rules are tried over a year. Days */
const triedDays = 365;

/** What watering rules are tried on: a tree as it stands, under the practice that goes for it. */
export interface TriedTree {
  readonly subject: WaterSubject;
  readonly stock: Stock;
  readonly care: Practice;
  /** Of its ring, as it was planned, or as one on level open ground is. */
  readonly ringM2: number;
}

/** `null` for a tree without a planting or a measured stock. */
export function triedTree(
  records: readonly FieldRecord[],
  basis: SpotBasis,
  species: Species | null,
): TriedTree | null {
  const { stock, care, plan } = basis;
  const subject = waterInputs(records, basis, species)?.subject;
  if (!subject || !stock) return null;
  const ringM2 = plan?.kind === 'plan' ? plan.ringM2 : typicalRingM2(stock, subject, care);
  return { subject, stock, care, ringM2 };
}

/** The first day of the year that ends today. */
export const triedYearFrom = (today: IsoDate): IsoDate => addDaysTo(today, 1 - triedDays);

/** The weather that was since a planting, for the last year at most; the whole of it where nothing was planted. */
export function pastYear(
  past: readonly ClimateDay[],
  { plantedOn, today }: { readonly plantedOn: IsoDate | null; readonly today: IsoDate },
): readonly ClimateDay[] {
  const yearAgo = triedYearFrom(today);
  return daysFrom(past, plantedOn !== null && plantedOn > yearAgo ? plantedOn : yearAgo, triedDays);
}

/** A year as it usually is, from a day on. */
export function typicalClimate(
  typical: TypicalYear,
  of: { readonly station: Station; readonly windows: readonly PlantingWindow[]; readonly from: IsoDate },
): readonly ClimateDay[] {
  const recorded = typicalDays(typical, of.from, triedDays);
  const today = recorded.at(-1)?.day ?? of.from;
  return waterClimate({ station: of.station, recorded, forecast: [] }, { windows: of.windows, today }).past;
}
