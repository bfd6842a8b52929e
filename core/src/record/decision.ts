import { addDaysTo, type IsoDate } from '../calendar';
import type { RemedyCode } from '../practice';
import type { Level } from '../reason';
import type { Reason } from './reasons';
import type { Stage } from './stage';

export const decisionKinds = [
  'measure_ground',
  'settle_ground',
  'change_ground',
  'move_spot',
  'choose_species',
  'measure_stock',
  'resolve_pit',
  'record_planting',
  'settle_contradiction',
  'hazard',
  'do_remedy',
  'look',
  'sign_off',
  'claim',
] as const;
export type DecisionKind = (typeof decisionKinds)[number];

/** Whether it waits at a planted tree, or at a place in preparation. */
export const isOfTree = (kind: DecisionKind): boolean =>
  kind === 'do_remedy' ||
  kind === 'look' ||
  kind === 'settle_contradiction' ||
  kind === 'hazard' ||
  kind === 'sign_off' ||
  kind === 'claim';

/** Something a person has to settle about one spot or its tree. */
export interface Decision {
  readonly kind: DecisionKind;
  readonly stage: Stage;
  readonly level: Level;
  /** Last day; `null` where only the season presses. */
  readonly dueOn: IsoDate | null;
  readonly remedy: RemedyCode | null;
  readonly because: readonly Reason[];
}

/** Nobody is asked any more once its last day is over. */
export const lapses = (kind: DecisionKind): boolean => kind === 'claim';
/** Whether that is so on a day. */
export const hasLapsed = ({ kind, dueOn }: Pick<Decision, 'kind' | 'dueOn'>, day: IsoDate): boolean =>
  lapses(kind) && dueOn !== null && dueOn < day;
/** Days before which nobody is shown what is only booked. */
const shownAheadDays = 60;
/** Whether it is booked for a day far ahead, and nothing is lost by not showing it yet. */
export const isFarAhead = ({ kind, level, dueOn }: Pick<Decision, 'kind' | 'level' | 'dueOn'>, day: IsoDate): boolean =>
  kind === 'do_remedy' && level === 'good' && dueOn !== null && dueOn > addDaysTo(day, shownAheadDays);

/** Whether a tree is late where its last day has passed: not by what lapses, nor by a word nobody has given yet. */
export const pressesBy = ({ kind, level }: Pick<Decision, 'kind' | 'level'>): boolean =>
  level !== 'good' && !lapses(kind);
