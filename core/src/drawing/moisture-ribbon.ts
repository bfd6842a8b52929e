import { scaleLinear } from 'd3-scale';
import { addDaysTo, daysBetween, type IsoDate } from '../calendar';
import type { MoistureSpan, TreeWater } from '../record';
import { formatQuantity, type UnitSystem } from '../units';
import { waterFromShare, type BalancedDay } from '../water';
import { sayIsoDay } from '../wording';
import { box, type Drawing, type Point, type Role, type Shape } from './shapes';

export interface MoistureRibbonInput {
  readonly water: TreeWater;
  readonly today: IsoDate;
  readonly units: UnitSystem;
  /** Spans in which its ball was to be felt once; left out where nobody asks. */
  readonly checks?: readonly MoistureSpan[] | undefined;
  readonly widthPx: number;
  readonly heightPx: number;
}

const gutter = { left: 74, right: 12, top: 10, bottom: 34 };
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;
/** Longer spans are drawn from so many days before today on. */
const mostDays = 240;

type Scale = (value: number) => number;

/**
 * The ball of a tree through its season: how full it is with how unsure that is, the zones of stress and of drowning, rain
 * and doses as ticks, readings as points with their error, and what is ahead as a widening band.
 */
export function moistureRibbon({ water, today, units, checks = [], widthPx, heightPx }: MoistureRibbonInput): Drawing {
  const days = water.days.filter(({ day }) => daysBetween(day, today) <= mostDays);
  const all = [...days, ...water.ahead];
  const [first, last] = [all[0]?.day ?? today, all.at(-1)?.day ?? today];
  const mostShare = saturatedShare(water);
  const x = scaleLinear([0, Math.max(1, daysBetween(first, last))], [gutter.left, widthPx - gutter.right]);
  const y = scaleLinear([0, mostShare], [heightPx - gutter.bottom, gutter.top]);
  const at: Scale = (i) => x(i);
  const dayX = (day: IsoDate): number => at(daysBetween(first, day));
  const up: Scale = (share) => y(Math.min(mostShare, Math.max(0, share)));
  const drownedFrom = 1 + (mostShare - 1) / 2;
  const area = { left: gutter.left, right: widthPx - gutter.right };
  const shapes: Shape[] = [
    zone(
      'moisture_drowned',
      area,
      [up(mostShare), up(drownedFrom)],
      'Waterlogged: more than half of the air is filled',
    ),
    zone('moisture_stress', area, [up(waterFromShare), up(0)], 'Stress: less than half of what the ball holds'),
    ...monthShapes(first, last, dayX, heightPx),
    ...wetShapes(all, dayX, heightPx, units),
    ...band(days, dayX, up, 'moisture_band'),
    ...band([...days.slice(-1), ...water.ahead], dayX, up, 'moisture_ahead'),
    { kind: 'line', role: 'moisture_line', points: days.map(({ day, share }): Point => [dayX(day), up(share)]) },
    ...readingShapes(water, { first, dayX, up }),
    ...missedShapes(checks, { first, dayX, floor: heightPx - gutter.bottom }),
    {
      kind: 'line',
      role: 'run_now',
      points: [
        [dayX(today), gutter.top],
        [dayX(today), heightPx - gutter.bottom],
      ],
    },
    ...names(up, { drownedFrom, mostShare }),
  ];
  return { widthPx, heightPx, shapes, description: describe(water, units) };
}

const saturatedShare = ({ ball: { saturation, fieldCapacity, wiltingPoint } }: TreeWater): number =>
  (saturation - wiltingPoint) / (fieldCapacity - wiltingPoint);

const zone = (
  role: Role,
  { left, right }: { left: number; right: number },
  [top, bottom]: readonly [number, number],
  title: string,
): Shape => ({ kind: 'polygon', role, points: box(left, top, right, bottom), title });

function band(days: readonly BalancedDay[], dayX: (day: IsoDate) => number, up: Scale, role: Role): Shape[] {
  if (days.length < 2) return [];
  const upper = days.map(({ day, share, errorShare }): Point => [dayX(day), up(share + errorShare)]);
  const lower = days.map(({ day, share, errorShare }): Point => [dayX(day), up(share - errorShare)]);
  return [{ kind: 'polygon', role, points: [...upper, ...lower.reverse()] }];
}

function wetShapes(
  days: readonly BalancedDay[],
  dayX: (day: IsoDate) => number,
  heightPx: number,
  units: UnitSystem,
): Shape[] {
  const floor = heightPx - gutter.bottom;
  return days.flatMap(({ day, rainL, dosesL }): Shape[] => {
    const left = dayX(day);
    const rain: Shape[] =
      rainL > 0 ? [{ kind: 'polygon', role: 'rain', points: box(left - 1, floor + 2, left + 1, floor + 8) }] : [];
    const title = `${sayIsoDay(day)}: ${formatQuantity(dosesL, 'volumeL', units)} reached the ball`;
    const dose: Shape[] =
      dosesL > 0
        ? [
            {
              kind: 'polygon',
              role: 'moisture_dose',
              points: [
                [left - 4, gutter.top - 8],
                [left + 4, gutter.top - 8],
                [left, gutter.top],
              ],
              title,
            },
          ]
        : [];
    return [...rain, ...dose];
  });
}

function readingShapes(
  { readings }: TreeWater,
  { first, dayX, up }: { first: IsoDate; dayX: (day: IsoDate) => number; up: Scale },
): Shape[] {
  return readings
    .filter(({ day }) => day >= first)
    .flatMap(({ day, share, errorShare }): Shape[] => {
      const left = dayX(day);
      const title = `${sayIsoDay(day)}: a reading of ${Math.round(share * 100)} %, give or take ${Math.round(errorShare * 100)}`;
      return [
        {
          kind: 'line',
          role: 'moisture_error',
          points: [
            [left, up(share - errorShare)],
            [left, up(share + errorShare)],
          ],
        },
        {
          kind: 'polygon',
          role: 'moisture_reading',
          points: box(left - 3, up(share) - 3, left + 3, up(share) + 3),
          title,
        },
      ];
    });
}

/** Weeks in which nobody felt the ball, as bars on the ground of the ribbon. */
function missedShapes(
  checks: readonly MoistureSpan[],
  { first, dayX, floor }: { first: IsoDate; dayX: (day: IsoDate) => number; floor: number },
): Shape[] {
  return checks
    .filter(({ read, from }) => !read && from >= first)
    .map(({ from, until }): Shape => {
      const title = `${sayIsoDay(from)} to ${sayIsoDay(until)}: nobody felt the ball`;
      return { kind: 'polygon', role: 'run_late', points: box(dayX(from), floor - 4, dayX(until), floor), title };
    });
}

function monthShapes(first: IsoDate, last: IsoDate, dayX: (day: IsoDate) => number, heightPx: number): Shape[] {
  const shapes: Shape[] = [];
  for (let day = first; day <= last; day = addDaysTo(day, 1)) {
    if (!day.endsWith('-01')) continue;
    const left = dayX(day);
    const floor = heightPx - gutter.bottom;
    shapes.push({
      kind: 'line',
      role: 'run_hour',
      points: [
        [left, gutter.top],
        [left, floor],
      ],
    });
    shapes.push(text([left + 3, heightPx - 8], months[Number(day.slice(5, 7)) - 1] ?? '', 'start'));
  }
  return shapes;
}

const text = (at: Point, words: string, align: 'start' | 'end'): Shape => ({
  kind: 'text',
  role: 'note',
  at,
  text: words,
  align,
  sizePx: 12,
  strong: false,
});

const names = (up: Scale, { drownedFrom, mostShare }: { drownedFrom: number; mostShare: number }): Shape[] => [
  text([gutter.left - 6, up((drownedFrom + mostShare) / 2) + 4], 'drowns', 'end'),
  text([gutter.left - 6, up(1) + 4], 'full', 'end'),
  text([gutter.left - 6, up(waterFromShare) + 4], 'half', 'end'),
  text([gutter.left - 6, up(0) + 4], 'empty', 'end'),
];

function describe({ days, holdsL, stressDays, waterloggedDays }: TreeWater, units: UnitSystem): string {
  const now = days.at(-1);
  if (!now) return 'Nothing is known of its water yet.';
  const share = `${Math.round(now.share * 100)} %, give or take ${Math.round(now.errorShare * 100)}`;
  return `The ball holds ${share} of ${formatQuantity(holdsL, 'volumeL', units)}; ${stressDays} days of stress and ${waterloggedDays} waterlogged.`;
}
