import { scaleLinear } from 'd3-scale';
import { clockOf } from '../calendar';
import type { BlockKind, DayHours, JudgedHour, RunBlock, TeamRun } from '../day';
import { box, textWidthPx, type Drawing, type Role, type Shape } from './shapes';

export interface DayRunInput {
  readonly hours: DayHours;
  readonly runs: readonly TeamRun[];
  /** Hours of the forecast; those that stop work are drawn behind all teams. */
  readonly weather: readonly JudgedHour[];
  readonly nowMin: number | null;
  readonly widthPx: number;
}

const gutterPx = 112;
const rowPx = 46;
const axisPx = 26;
const roles: Readonly<Record<BlockKind, Role>> = {
  check_in: 'run_wait',
  demonstration: 'run_wait',
  walk: 'run_walk',
  tree: 'run_tree',
  break: 'run_wait',
  stopped: 'run_stopped',
  clean_up: 'run_clean',
  spare: 'run_spare',
};
export const blockNames: Readonly<Record<BlockKind, string>> = {
  check_in: 'check-in',
  demonstration: 'demonstration',
  walk: 'on the way',
  tree: 'tree',
  break: 'break',
  stopped: 'stopped',
  clean_up: 'clean-up',
  spare: 'free for another tree',
};
export const causeWords = {
  too_much: 'more trees than hours',
  behind: 'behind since an earlier tree',
  stopped: 'work was stopped',
  tool: 'a tool is shared',
} as const;

/** Teams one under another against the time of the day: each tree as long as it takes, its range as a thin line. */
export function dayRun(input: DayRunInput): Drawing {
  const { hours, runs, widthPx } = input;
  const last = Math.max(hours.endMin, ...runs.flatMap(({ blocks }) => blocks.map(({ toMin }) => toMin)));
  const x = scaleLinear([hours.gatherMin, last], [gutterPx, widthPx - 24]);
  const heightPx = axisPx + rowPx * Math.max(1, runs.length) + 8;
  const shapes = [
    ...weatherShapes(input, x, heightPx),
    ...axisShapes(hours, last, x, heightPx),
    ...runs.flatMap((run, row) => teamShapes(run, axisPx + row * rowPx, x)),
    ...lineAt(hours.endMin - hours.cleanUpMin, 'run_limit', x, heightPx),
    ...(input.nowMin === null ? [] : lineAt(input.nowMin, 'run_now', x, heightPx)),
  ];
  return { widthPx, heightPx, shapes, description: describe(runs) };
}

type Scale = (minutes: number) => number;

const lineAt = (minutes: number, role: Role, x: Scale, heightPx: number): Shape[] => [
  {
    kind: 'line',
    role,
    points: [
      [x(minutes), axisPx - 6],
      [x(minutes), heightPx - 4],
    ],
  },
];

function axisShapes(hours: DayHours, last: number, x: Scale, heightPx: number): Shape[] {
  const first = Math.ceil(hours.gatherMin / 60);
  const count = Math.floor(last / 60) - first + 1;
  return Array.from({ length: Math.max(0, count) }, (_, i) => (first + i) * 60).flatMap((minutes): Shape[] => [
    {
      kind: 'line',
      role: 'run_hour',
      points: [
        [x(minutes), axisPx - 4],
        [x(minutes), heightPx - 4],
      ],
    },
    {
      kind: 'text',
      role: 'label',
      at: [x(minutes), axisPx - 10],
      text: clockOf(minutes),
      align: 'middle',
      sizePx: 12,
      strong: false,
    },
  ]);
}

function weatherShapes({ weather, hours }: DayRunInput, x: Scale, heightPx: number): Shape[] {
  return weather
    .filter((hour) => hour.stops && hour.hour * 60 + 60 > hours.gatherMin)
    .map((hour): Shape => ({
      kind: 'polygon',
      role: 'run_weather',
      points: box(Math.max(gutterPx, x(hour.hour * 60)), axisPx, x(hour.hour * 60 + 60), heightPx - 4),
      title: `${clockOf(hour.hour * 60)}: weather stops work`,
    }));
}

function teamShapes(run: TeamRun, top: number, x: Scale): Shape[] {
  const name: Shape = {
    kind: 'text',
    role: 'label',
    at: [6, top + 21],
    text: run.name,
    align: 'start',
    sizePx: 14,
    strong: true,
  };
  const standing = run.lateMin > 0 ? `${Math.round(run.lateMin)} min late` : `done ${clockOf(run.finishMin)}`;
  const state: Shape = {
    kind: 'text',
    role: run.lateMin > 0 ? 'run_late' : 'note',
    at: [6, top + 37],
    text: standing,
    align: 'start',
    sizePx: 12,
    strong: run.lateMin > 0,
  };
  return [name, state, ...run.blocks.flatMap((block) => blockShapes(block, top, x))];
}

function blockShapes(block: RunBlock, top: number, x: Scale): Shape[] {
  const [left, right] = [x(block.fromMin), x(block.toMin)];
  const isTree = block.kind === 'tree';
  const role = isTree && block.done ? 'run_done' : roles[block.kind];
  const what = isTree ? (block.ref ?? '') : blockNames[block.kind];
  const title = `${what}, ${clockOf(block.fromMin)} to ${clockOf(block.toMin)}${rangeWords(block)}`;
  const [upper, lower] = isTree ? [top + 8, top + 32] : [top + 13, top + 27];
  const shape: Shape = { kind: 'polygon', role, points: box(left, upper, Math.max(left + 1, right - 1), lower), title };
  const text = isTree ? (block.ref ?? '') : '';
  const fits = text !== '' && textWidthPx(text, 12) + 6 < right - left;
  const label: Shape[] = fits
    ? [
        {
          kind: 'text',
          role: block.done ? 'run_done_text' : 'run_text',
          at: [(left + right) / 2, top + 24],
          text,
          align: 'middle',
          sizePx: 12,
          strong: true,
        },
      ]
    : [];
  const range: Shape[] =
    isTree && !block.done && block.lowToMin !== undefined && block.highToMin !== undefined
      ? [
          {
            kind: 'line',
            role: 'range',
            points: [
              [x(block.lowToMin), lower + 4],
              [x(block.highToMin), lower + 4],
            ],
          },
        ]
      : [];
  return [shape, ...label, ...range];
}

const rangeWords = ({ done, lowToMin, highToMin }: RunBlock): string =>
  done || lowToMin === undefined || highToMin === undefined
    ? ''
    : `, in four days of five done between ${clockOf(lowToMin)} and ${clockOf(highToMin)}`;

function describe(runs: readonly TeamRun[]): string {
  if (runs.length === 0) return 'No teams yet.';
  const late = runs.filter(({ lateMin }) => lateMin > 0);
  const last = runs.reduce((worst, run) => (run.finishMin > worst.finishMin ? run : worst));
  const names = late.map(
    ({ name, lateMin, cause }) => `${name} by ${Math.round(lateMin)} min${cause ? `, ${causeWords[cause]}` : ''}`,
  );
  return `${runs.length} teams; the last, ${last.name}, is done at ${clockOf(last.finishMin)}. ${late.length > 0 ? `Late: ${names.join('; ')}.` : 'All in time.'}`;
}
