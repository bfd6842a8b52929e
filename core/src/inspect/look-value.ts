import { daysBetween, type IsoDate } from '../calendar';
import { requireWithin } from '../errors';
import type { Level } from '../reason';
import type { LastFound } from './look';
import { because, type InspectReason } from './reasons';

/** What a look is worth: rules of the programme. Shares are estimates, until its own record says better. */
export interface LookRules {
  /** Of trees last found so, how many are lost within a year where nobody looks again. % */
  readonly lossPct: Readonly<Record<LastFound, number>>;
  /** Of those, how many a look in time saves. % */
  readonly savedPct: number;
  /** Of a tree, planted anew and watered until it stands; in the programme's currency. */
  readonly replacementCost: number;
  /** How many times likelier a loss is: its balance dries out or drowns; its cohort is in trouble; a storm came since. */
  readonly balanceTimes: number;
  readonly cohortTimes: number;
  readonly stormTimes: number;
  /** A gust from which young trees are looked at again. m/s */
  readonly stormGustMs: number;
  /** Ice round twigs from which they are. mm */
  readonly stormIceMm: number;
  /** A cohort counts as in trouble from this share of it, and from so many trees. %, trees */
  readonly cohortPct: number;
  readonly cohortLeast: number;
  readonly minutesPerLook: number;
  readonly walkKmPerH: number;
}

export const defaultLookRules: LookRules = {
  lossPct: { urgent: 30, act: 12, watch: 6, good: 2, unseen: 8 },
  savedPct: 50,
  replacementCost: 400,
  balanceTimes: 2,
  cohortTimes: 1.5,
  stormTimes: 2,
  stormGustMs: 20,
  stormIceMm: 6,
  cohortPct: 30,
  cohortLeast: 8,
  minutesPerLook: 4,
  walkKmPerH: 4,
};

/** By what a storm was one: its strongest gust, or the ice it left on crowns. m/s, mm */
export type Storm =
  { readonly on: IsoDate; readonly gustMs: number } | { readonly on: IsoDate; readonly iceMm: number };

/** What is known of a tree that may be looked at. */
export interface LookCandidate {
  readonly found: LastFound;
  /** Its next look by the calendar or by a finding; `null` where none is booked. */
  readonly dueOn: IsoDate | null;
  /** What its balance tells. */
  readonly balance: 'dry' | 'drowned' | null;
  /** Of its species, planted in its season: how many stand, and how many ask for something. */
  readonly cohort: { readonly trees: number; readonly troubled: number };
  /** The last storm since it was looked at, while it is young. */
  readonly storm: Storm | null;
}

export interface LookValue {
  /** Of loss within a year where nobody looks. %, 0–100 */
  readonly lossPct: number;
  /** Expected loss that a look avoids, in the programme's currency. */
  readonly value: number;
  readonly because: readonly InspectReason[];
}

/** A year past its time doubles the doubt. */
const doubtYearDays = 365;

/**
 * Expected loss that a look avoids: how likely the tree is lost, by what was found last and what speaks of trouble since,
 * times what a look in time saves of that, times what another tree costs. Probabilities multiply and end at 100 %.
 * @throws InvalidInputError for a share outside 0–100 %
 */
export function lookValue(tree: LookCandidate, on: IsoDate, rules: LookRules): LookValue {
  const basePct = rules.lossPct[tree.found];
  requireWithin('lossPct', basePct, { min: 0, max: 100, unit: '%' });
  requireWithin('savedPct', rules.savedPct, { min: 0, max: 100, unit: '%' });
  const lateDays = tree.dueOn === null ? 0 : Math.max(0, daysBetween(tree.dueOn, on));
  const { trees, troubled } = tree.cohort;
  const inTrouble = trees >= rules.cohortLeast && troubled * 100 >= trees * rules.cohortPct;
  const doubts: readonly { readonly times: number; readonly because: InspectReason }[] = [
    ...(lateDays > 0
      ? [
          {
            times: 1 + lateDays / doubtYearDays,
            because: because('look_late', { days: lateDays, times: 1 + lateDays / doubtYearDays }),
          },
        ]
      : []),
    ...(tree.balance
      ? [
          {
            times: rules.balanceTimes,
            because: because('look_balance', { balance: tree.balance, times: rules.balanceTimes }),
          },
        ]
      : []),
    ...(inTrouble
      ? [{ times: rules.cohortTimes, because: because('look_cohort', { trees, troubled, times: rules.cohortTimes }) }]
      : []),
    ...(tree.storm ? [{ times: rules.stormTimes, because: afterStorm(tree.storm, rules.stormTimes) }] : []),
  ];
  const lossPct = Math.min(
    100,
    doubts.reduce((pct, { times }) => pct * times, basePct),
  );
  const value = (lossPct / 100) * (rules.savedPct / 100) * rules.replacementCost;
  const { savedPct, replacementCost: cost } = rules;
  return {
    lossPct,
    value,
    because: [
      because('look_found', { found: tree.found, pct: basePct }),
      ...doubts.map((doubt) => doubt.because),
      because('look_worth', { lossPct, savedPct, cost, value }),
    ],
  };
}

const afterStorm = (storm: Storm, times: number): InspectReason =>
  'iceMm' in storm ? because('look_ice', { ...storm, times }) : because('look_storm', { ...storm, times });

export const foundOf = (level: Level, looked: boolean): LastFound => (looked ? level : 'unseen');
