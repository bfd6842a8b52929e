/**
 * A drawing is a list of plain shapes in pixels, y down, painted in order. What things are is said by
 * `role`; the painter gives each role its colour and line. Geometry lives here, paint elsewhere.
 */
export type Role =
  | 'ground'
  | 'backfill'
  | 'ball'
  | 'root'
  | 'trunk'
  | 'mulch'
  | 'berm'
  | 'grade'
  | 'flare'
  | 'pit'
  | 'dimension'
  | 'level'
  | 'label'
  | 'note'
  | 'rain'
  | 'rain_ahead'
  | 'demand'
  | 'demand_ahead'
  | 'range'
  | 'window'
  | 'planting_day'
  | 'planting_day_ahead'
  | 'round'
  | 'ticket'
  | 'crown'
  | 'crown_conflict'
  | 'wire'
  | 'wall'
  | 'pavement'
  | 'shade'
  | 'stake'
  | 'tie'
  | 'amendment'
  | 'surplus'
  | 'put_back'
  | 'layer'
  | 'face'
  | 'run_wait'
  | 'run_walk'
  | 'run_tree'
  | 'run_text'
  | 'run_done'
  | 'run_done_text'
  | 'run_stopped'
  | 'run_clean'
  | 'run_spare'
  | 'run_hour'
  | 'run_weather'
  | 'run_limit'
  | 'run_now'
  | 'run_late'
  | 'moisture_line'
  | 'moisture_band'
  | 'moisture_ahead'
  | 'moisture_stress'
  | 'moisture_drowned'
  | 'moisture_dose'
  | 'moisture_reading'
  | 'moisture_error'
  | 'leaf_green'
  | 'leaf_pale'
  | 'leaf_brown'
  | 'leaf_turned'
  | 'leaf_usual'
  | 'vein'
  | 'twig'
  | 'plumb'
  | 'hole'
  | 'bug'
  | 'dial_ground'
  | 'dial_tick'
  | 'dial_anchor'
  | 'dial_before'
  | 'dial_clear'
  | 'dial_touching'
  | 'dial_pressing'
  | 'dial_grown'
  | 'dial_chosen'
  | 'dial_pressed'
  | 'dial_cut'
  | 'dial_season'
  | 'dial_number'
  | 'dial_share';

export type Point = readonly [x: number, y: number];

/** The corners of an upright rectangle. */
export const box = (left: number, top: number, right: number, bottom: number): Point[] => [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
];

export type Shape =
  | {
      readonly kind: 'polygon';
      readonly role: Role;
      readonly points: readonly Point[];
      /** What it stands for, shown when pointed at. */
      readonly title?: string;
    }
  | { readonly kind: 'line'; readonly role: Role; readonly points: readonly Point[] }
  | {
      readonly kind: 'text';
      readonly role: Role;
      readonly at: Point;
      readonly text: string;
      readonly align: 'start' | 'middle' | 'end';
      readonly sizePx: number;
      readonly strong: boolean;
    };

export const polygon = (role: Role, points: readonly Point[]): Shape => ({ kind: 'polygon', role, points });
export const line = (role: Role, points: readonly Point[]): Shape => ({ kind: 'line', role, points });

export interface Drawing {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly shapes: readonly Shape[];
  /** One sentence for people who do not see the drawing. */
  readonly description: string;
}

/**
 * Advances of the shipped text face in its bold weight, em, by kinds of letter: labels are placed by them, and a strong
 * one must not be cut off. Read off the face; regular text runs a twentieth narrower.
 */
const advancesEm: readonly (readonly [RegExp, number])[] = [
  [/[mMW%]/, 0.92],
  [/w/, 0.74],
  [/[ijl.,:;'’|]/, 0.32],
  [/[frt()\s-]/, 0.36],
  [/[1I]/, 0.44],
  [/[A-Z]/, 0.7],
  [/\d/, 0.63],
];
const usualEm = 0.58;
const advanceEm = (letter: string): number => advancesEm.find(([kind]) => kind.test(letter))?.[1] ?? usualEm;

export const textWidthPx = (text: string, sizePx: number): number =>
  sizePx * [...text].reduce((sum, letter) => sum + advanceEm(letter), 0);

/** A line of words and what parts it from the next block. */
const linePx = 18;

/**
 * First lines of blocks of words, as near to where they wish to stand as fits: in order, none over another, between
 * the ends given. Blocks that are higher together than the room run out of its lower end.
 */
export function stackApart(
  blocks: readonly { readonly wish: number; readonly height: number }[],
  room: { readonly from: number; readonly to: number },
): number[] {
  const placed: number[] = [];
  let least = room.from;
  for (const { wish, height } of blocks) {
    const y = Math.max(wish, least);
    placed.push(y);
    least = y + height;
  }
  for (let i = blocks.length - 1; i >= 0; i--) {
    const height = blocks[i]?.height ?? 0;
    placed[i] = Math.min(placed[i] ?? 0, (placed[i + 1] ?? room.to + linePx) - height);
  }
  // Pushed up against the upper end, the first ones win.
  least = room.from;
  return placed.map((y, i) => {
    const at = Math.max(y, least);
    least = at + (blocks[i]?.height ?? 0);
    return at;
  });
}
