import { formatQuantity, type IsoDate, type NextWater, type UnitSystem } from '@sombra/core';
import { sayDay } from '../ui/say-date';

/** When a tree asks for water, and how much, in a few words. */
export function sayNext(
  next: NextWater,
  { today, units }: { readonly today: IsoDate; readonly units: UnitSystem },
): string {
  switch (next.kind) {
    case 'water': {
      const litres = formatQuantity(next.litres, 'volumeL', units);
      if (next.on > today) return `Water by ${sayDay(next.on)}, ${litres}`;
      return `Water now, ${litres}${next.on < today ? `; asks since ${sayDay(next.on)}` : ''}`;
    }
    case 'never_dries':
      return `No water needed within ${next.withinDays} days`;
    case 'not_forecast':
      return 'No water needed today';
    case 'drowned':
      return 'Stop watering: the ball drowns';
  }
}
