import type { SpotDetail, WaterBasis } from '@sombra/contract';
import {
  formatQuantity,
  limits,
  treeWater,
  type FieldRecord,
  type IsoDate,
  type SpotLife,
  type TreeWater,
  type UnitSystem,
} from '@sombra/core';
import type { TypedQuantity } from '../fields/typed-quantity';

/** The water of one tree, worked out here: from its records, those too that wait on this device, and the weather at hand. */
export function followedTree(
  tree: { readonly records: readonly FieldRecord[]; readonly life: SpotLife; readonly detail: SpotDetail },
  { station, recorded, forecast, species }: WaterBasis,
  today: IsoDate,
): TreeWater | null {
  const { records, life, detail } = tree;
  const known = species.find(({ botanical }) => botanical === detail.tree?.species) ?? null;
  const of = { records, basis: life, species: known, weather: { station, recorded, forecast } };
  return treeWater({ ...of, checkpoint: detail.waterFrom, today });
}

/** The litres somebody typed, or what is wrong with them. */
export function readLitres(
  typed: TypedQuantity,
  { name, units }: { readonly name: string; readonly units: UnitSystem },
): { readonly litres: number } | { readonly fault: string } {
  const litres = typed.value();
  const { min, max } = limits.wateringL;
  if (litres !== null && litres >= min && litres <= max) return { litres };
  const say = (value: number) => formatQuantity(value, 'volumeL', units);
  return { fault: `${name} must be within ${say(min)} to ${say(max)}, got ${typed.text() || 'nothing'}.` };
}
