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
  | 'shade';

export type Point = readonly [x: number, y: number];

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

export interface Drawing {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly shapes: readonly Shape[];
  /** One sentence for people who do not see the drawing. */
  readonly description: string;
}

/** Typical advance of a character in the shipped text face, em; labels are placed by it. */
const advanceEm = 0.53;

export const textWidthPx = (text: string, sizePx: number): number => text.length * sizePx * advanceEm;

/** Moves wished positions apart until neighbours are at least `gapPx` from each other; order is kept. */
export function spreadApart(wished: readonly number[], gapPx: number): number[] {
  const placed: number[] = [];
  for (const y of wished) placed.push(Math.max(y, (placed.at(-1) ?? -Infinity) + gapPx));
  return placed;
}
