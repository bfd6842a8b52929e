import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { addDaysTo, daysBetween, type IsoDate } from '../calendar';
import type { SeasonWeek, WindowSpan } from '../season';
import { formatQuantity, type UnitSystem } from '../units';
import { sayIsoDay, stockNames } from '../wording';
import { box, textWidthPx, type Drawing, type Point, type Role, type Shape } from './shapes';

/** Something with a date or a span of dates that the band marks. */
export interface BandMark {
  readonly kind: 'planting_day' | 'round' | 'ticket';
  readonly from: IsoDate;
  readonly to: IsoDate;
  readonly title: string;
}

export interface SeasonBandInput {
  readonly weeks: readonly SeasonWeek[];
  readonly windows: readonly WindowSpan[];
  readonly marks: readonly BandMark[];
  readonly today: IsoDate;
  readonly units: UnitSystem;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Where days lie across the band, as days since the first; the gutters hold scale and names. */
export interface BandScale {
  readonly firstDay: IsoDate;
  readonly days: number;
  readonly x: ScaleLinear<number, number>;
}

const gutter = { left: 62, right: 10 };
const marksPx = 15;
const windowsPx = 9;
const monthsPx = 15;

export function bandScale(firstDay: IsoDate, weeks: number, widthPx: number): BandScale {
  const days = weeks * 7;
  const x = scaleLinear([0, days], [gutter.left, widthPx - gutter.right]).clamp(true);
  return { firstDay, days, x };
}

const leftOf = ({ x }: BandScale): number => x(0);
const rightOf = ({ x, days }: BandScale): number => x(days);

/** Pixels from the left of the start of a day; days outside the band lie at its ends. */
export function dayX(scale: BandScale, day: IsoDate): number {
  return scale.x(daysBetween(scale.firstDay, day));
}

/** The day under a pixel; the band's ends beyond it. */
export function dayAt(scale: BandScale, x: number): IsoDate {
  return addDaysTo(scale.firstDay, Math.min(scale.days - 1, Math.floor(scale.x.invert(x))));
}

/**
 * The year's weeks: rain as bars and water demand as a stepped line on one scale from one baseline, what is
 * ahead drawn open with its range, and below them the planting windows, above them what is booked.
 */
export function seasonBand(input: SeasonBandInput): Drawing {
  const { weeks, widthPx, heightPx } = input;
  const first = weeks[0];
  if (!first) return { widthPx, heightPx, shapes: [], description: 'No weeks to show.' };
  const scale = bandScale(first.monday, weeks.length, widthPx);
  const baseY = heightPx - monthsPx - windowsPx - 3;
  const mostMm = Math.max(10, ...weeks.flatMap((week) => [week.rain.mm, week.demand.mm]));
  // Round depths, so that the axis reads well and does not jump with every shower. A range may reach past the top:
  // it is cut there rather than flatten every week.
  const yOf = scaleLinear([0, mostMm], [baseY, marksPx + 3])
    .nice(4)
    .clamp(true);
  const topMm = yOf.domain()[1] ?? mostMm;
  const shapes = [
    ...windowShapes(input, scale, baseY + 2),
    ...weeks.flatMap((week) => rainShapes(week, scale, yOf, input.units)),
    ...demandShapes(weeks, scale, yOf),
    ...axisShapes(topMm, yOf, scale, input.units),
    ...monthShapes(scale, heightPx - 3),
    ...input.marks.flatMap((mark) => markShapes(mark, scale, input.today)),
  ];
  return { widthPx, heightPx, shapes, description: describe(input) };
}

function weekEdges(week: SeasonWeek, scale: BandScale): [left: number, right: number] {
  return [dayX(scale, week.monday), dayX(scale, addDaysTo(week.monday, 7))];
}

function rainShapes(week: SeasonWeek, scale: BandScale, yOf: (mm: number) => number, units: UnitSystem): Shape[] {
  const [left, right] = weekEdges(week, scale);
  const ahead = week.source !== 'recorded';
  const depth = (mm: number) => formatQuantity(mm, 'waterMm', units);
  const range = ahead ? ` (${depth(week.rain.lowMm)}–${depth(week.rain.highMm)})` : '';
  const title = `Week of ${sayIsoDay(week.monday)}, ${week.source}: rain ${depth(week.rain.mm)}${range}, demand ${depth(week.demand.mm)}`;
  const bar: Shape = {
    kind: 'polygon',
    role: ahead ? 'rain_ahead' : 'rain',
    points: box(left + 1, yOf(week.rain.mm), right - 1, yOf(0)),
    title,
  };
  if (!ahead) return [bar];
  const middle = (left + right) / 2;
  const { lowMm, highMm } = week.rain;
  return [
    bar,
    {
      kind: 'line',
      role: 'range',
      points: [
        [middle, yOf(lowMm)],
        [middle, yOf(highMm)],
      ],
    },
  ];
}

function demandShapes(weeks: readonly SeasonWeek[], scale: BandScale, yOf: (mm: number) => number): Shape[] {
  const step = (part: readonly SeasonWeek[]): Point[] =>
    part.flatMap((week) => {
      const [left, right] = weekEdges(week, scale);
      return [
        [left, yOf(week.demand.mm)],
        [right, yOf(week.demand.mm)],
      ] as Point[];
    });
  const firstAhead = weeks.findIndex(({ source }) => source !== 'recorded');
  const split = firstAhead < 0 ? weeks.length : firstAhead;
  return [
    { kind: 'line', role: 'demand', points: step(weeks.slice(0, split)) },
    { kind: 'line', role: 'demand_ahead', points: step(weeks.slice(split)) },
  ];
}

function text(at: Point, words: string, role: Role, align: 'start' | 'middle' | 'end', sizePx = 11): Shape {
  return { kind: 'text', role, at, text: words, align, sizePx, strong: false };
}

function axisShapes(topMm: number, yOf: (mm: number) => number, scale: BandScale, units: UnitSystem): Shape[] {
  const edge = leftOf(scale) - 5;
  const middle = (yOf(0) + yOf(topMm)) / 2;
  return [
    {
      kind: 'line',
      role: 'dimension',
      points: [
        [leftOf(scale), yOf(0)],
        [rightOf(scale), yOf(0)],
      ],
    },
    text([edge, yOf(topMm) + 8], formatQuantity(topMm, 'waterMm', units), 'note', 'end'),
    ...(yOf(0) - yOf(topMm) < keyPx ? [] : keyShapes(middle)),
  ];
}

/** Lower bands have no room for the key; people know it from the others. */
const keyPx = 30;

function keyShapes(middle: number): Shape[] {
  return [
    // The key: a bar for rain, a step for demand, beside their words.
    { kind: 'polygon', role: 'rain', points: box(3, middle - 6, 11, middle + 1) },
    text([14, middle + 1], 'rain', 'note', 'start'),
    {
      kind: 'line',
      role: 'demand',
      points: [
        [2, middle + 10],
        [12, middle + 10],
      ],
    },
    text([14, middle + 14], 'demand', 'note', 'start'),
  ];
}

const monthNames = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** Names of the months that have room, with the year at each January and at the first. */
function monthShapes(scale: BandScale, y: number): Shape[] {
  const starts = Array.from({ length: scale.days }, (_, i) => addDaysTo(scale.firstDay, i)).filter((day) =>
    day.endsWith('-01'),
  );
  let free = 0;
  return starts.flatMap((day, i) => {
    const x = dayX(scale, day);
    const month = monthNames[Number(day.slice(5, 7)) - 1] ?? '';
    const words = i === 0 || month === 'Jan' ? `${month} ${day.slice(0, 4)}` : month;
    const tick: Shape = {
      kind: 'line',
      role: 'dimension',
      points: [
        [x, y - 11],
        [x, y - 2],
      ],
    };
    const end = x + 4 + textWidthPx(words, 11);
    // A month without room for its name keeps its mark only where that does not run through a name.
    if (x < free) return [];
    if (end > rightOf(scale)) return [tick];
    free = end + 4;
    return [tick, text([x + 3, y], words, 'note', 'start')];
  });
}

/** Nested by how long they last: container outermost, bare-root inmost. */
function windowShapes(input: SeasonBandInput, scale: BandScale, top: number): Shape[] {
  const inset: Readonly<Record<WindowSpan['stock'], number>> = { container: 0, balled: 1.5, bare_root: 3 };
  const spans = [...input.windows].sort((a, b) => inset[a.stock] - inset[b.stock]);
  return [
    ...(input.heightPx < 70 ? [] : [text([leftOf(scale) - 5, top + windowsPx], 'planting', 'note', 'end')]),
    ...spans.map((span): Shape => ({
      kind: 'polygon',
      role: 'window',
      points: box(
        dayX(scale, span.from),
        top + inset[span.stock],
        dayX(scale, addDaysTo(span.to, 1)),
        top + windowsPx - inset[span.stock],
      ),
      title: `Planting window, ${stockNames[span.stock]}: ${sayIsoDay(span.from)} to ${sayIsoDay(span.to)}. ${span.because}`,
    })),
  ];
}

function markShapes(mark: BandMark, scale: BandScale, today: IsoDate): Shape[] {
  const lastDay = addDaysTo(scale.firstDay, scale.days);
  if (mark.to < scale.firstDay || mark.from >= lastDay) return [];
  const left = dayX(scale, mark.from);
  if (mark.kind === 'planting_day') {
    const role = mark.from > today ? 'planting_day_ahead' : 'planting_day';
    const points: Point[] = [
      [left - 4.5, 9],
      [left, 1],
      [left + 4.5, 9],
    ];
    return [{ kind: 'polygon', role, points, title: mark.title }];
  }
  const right = Math.max(left + 3, dayX(scale, addDaysTo(mark.to, 1)));
  const [top, bottom] = mark.kind === 'round' ? [10.5, 13] : [14, 16];
  return [{ kind: 'polygon', role: mark.kind, points: box(left, top, right, bottom), title: mark.title }];
}

function describe({ weeks, marks, units, today }: SeasonBandInput): string {
  const now = weeks.find((week) => week.monday <= today && today < addDaysTo(week.monday, 7));
  const depth = (mm: number) => formatQuantity(mm, 'waterMm', units);
  const week = now ? ` This week: rain ${depth(now.rain.mm)}, demand ${depth(now.demand.mm)}.` : '';
  const count = (kind: BandMark['kind']) => marks.filter((mark) => mark.kind === kind).length;
  return (
    `${weeks.length} weeks of rain and water demand.${week} ` +
    `${count('planting_day')} planting days, ${count('round')} rounds, ${count('ticket')} locate tickets.`
  );
}
