const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const weekday = /^(mon|tue|wed|thu|fri|sat|sun)[a-z]*,?\s+/i;

/**
 * The ISO day somebody typed: `27 Nov 2026`, `27.11.2026`, `27/11/2026`, `2026-11-27`, or without a year for this one;
 * `null` where it is none.
 */
export function readDay(typed: string, thisYear = new Date().getFullYear()): string | null {
  const said = typed.trim().replace(weekday, '');
  const [, isoYear, isoMonth, isoDay] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(said) ?? [];
  if (isoYear) return dayOf(Number(isoYear), Number(isoMonth), Number(isoDay));
  const [, day, named, figures, year] =
    /^(\d{1,2})[\s./-]+(?:([a-z]{3,9})\.?|(\d{1,2})\.?)(?:[\s./-]+(\d{4}))?$/i.exec(said) ?? [];
  if (!day || (figures && !year && !said.endsWith('.'))) return null;
  const month = named ? months.indexOf(named.slice(0, 3).toLowerCase()) + 1 : Number(figures);
  return dayOf(year ? Number(year) : thisYear, month, Number(day));
}

/** @returns `null` for a day that its month does not have */
function dayOf(year: number, month: number, day: number): string | null {
  if (year < 1900 || month < 1 || month > 12) return null;
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCDate() === day && date.getUTCMonth() === month - 1 ? date.toISOString().slice(0, 10) : null;
}
