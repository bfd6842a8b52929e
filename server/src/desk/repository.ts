import type { DeskGroupQuery, DeskMember, OpenRemedy } from '@sombra/contract';
import { addDaysTo, lapses, type Decision, type DecisionKind, type IsoDate, type UrgencyRules } from '@sombra/core';
import type { Knex } from 'knex';
import type { Db } from '../platform/db';
import { onDay } from '../town/filter-repository';

export interface DeskDay {
  readonly on: IsoDate;
  readonly today: IsoDate;
  readonly rules: UrgencyRules;
}

/** Decisions due on a day by the rules: those without a last day always are. */
function dueDecisions(db: Db, { on, today, rules }: DeskDay): Knex.QueryBuilder {
  // What is only booked, and lost by no waiting, is gathered with the other remedies and crowds no desk.
  const pressing = (query: Knex.QueryBuilder) =>
    query.whereNot((booked) => void booked.where({ 'decision.kind': 'do_remedy', 'decision.level': 'good' }));
  const kinds = Object.entries(rules.showDaysAhead) as [DecisionKind, number][];
  return pressing(onDay(db('decision'), 'decision', on, today)).where((due) => {
    void due.whereNull('decision.due_on');
    for (const [kind, ahead] of kinds) {
      void due.orWhere((of) => {
        void of.where('decision.kind', kind).where('decision.due_on', '<=', addDaysTo(on, ahead));
        if (lapses(kind)) void of.where('decision.due_on', '>=', on);
      });
    }
  });
}

/** Alike decisions at one place. */
export interface DecisionGroup extends Omit<Decision, 'because'> {
  readonly count: number;
  readonly placeId: string;
  readonly place: string;
  /** The spot whose last day comes first. */
  readonly spotId: string;
}

/** @param places those of these places alone; all where it is `null` */
export async function decisionGroups(
  db: Db,
  day: DeskDay,
  places: readonly string[] | null = null,
): Promise<DecisionGroup[]> {
  const due = dueDecisions(db, day);
  if (places) void due.whereRaw('decision.place_id = any(?::uuid[])', [[...places]]);
  const grouped = due.groupBy('place_id', 'kind', 'remedy', 'level', 'stage').select(
    'place_id',
    'kind',
    'remedy',
    'level',
    'stage',
    db.raw('min(due_on) as due_on'),
    db.raw('count(*)::int as count'),
    // The spot that comes first, found in the same pass: a day is ten letters, then the id.
    db.raw(`substr(min(coalesce(due_on::text, '9999-12-31') || spot_id::text), 11) as spot_id`),
  );
  return db
    .from(grouped.as('grouped'))
    .join('place', 'place.id', 'grouped.place_id')
    .orderByRaw('grouped.due_on nulls last, place.name')
    .select<DecisionGroup[]>(
      'place.id as placeId',
      'place.name as place',
      'grouped.kind',
      'grouped.remedy',
      'grouped.level',
      'grouped.stage',
      'grouped.due_on as dueOn',
      'grouped.count',
      'grouped.spot_id as spotId',
    );
}

const memberColumns = [
  'decision.spot_id as spotId',
  'decision.tree_id as treeId',
  'spot.ref',
  'tree.species',
  'decision.due_on as dueOn',
  'decision.because',
];

const withSpots = (query: Knex.QueryBuilder) =>
  query
    .join('spot', 'spot.id', 'decision.spot_id')
    .join('place', 'place.id', 'spot.place_id')
    .leftJoin('tree', 'tree.id', 'decision.tree_id');

/** The decisions of one group, the earliest last day first. */
export async function groupMembers(db: Db, day: DeskDay, group: DeskGroupQuery, limit: number): Promise<DeskMember[]> {
  const { place, kind, level, remedy } = group;
  return withSpots(dueDecisions(db, day))
    .where({ 'place.name': place, 'decision.kind': kind, 'decision.level': level })
    .whereRaw('decision.remedy is not distinct from ?', [remedy ?? null])
    .orderByRaw('decision.due_on nulls last, spot.ref')
    .limit(limit)
    .select<DeskMember[]>(memberColumns);
}

type FirstMember = DeskMember & Pick<Decision, 'kind' | 'level' | 'remedy'>;

/** The decisions of these spots, to tell the reason of each group's first one. */
export async function decisionsOfSpots(db: Db, day: DeskDay, spotIds: readonly string[]): Promise<FirstMember[]> {
  return withSpots(dueDecisions(db, day))
    .whereRaw('decision.spot_id = any(?::uuid[])', [[...spotIds]])
    .orderBy(['decision.spot_id', 'decision.position'])
    .select<FirstMember[]>(...memberColumns, 'decision.kind', 'decision.level', 'decision.remedy');
}

/** Remedies open now on these spots, with the spots each waits on. */
export async function openRemedies(db: Db, spotIds: readonly string[]): Promise<OpenRemedy[]> {
  return db('decision')
    .whereRaw('spot_id = any(?::uuid[])', [[...spotIds]])
    .whereNull('until_day')
    .whereNotNull('remedy')
    .groupBy('remedy')
    .orderByRaw('count(distinct spot_id) desc, remedy')
    .select<OpenRemedy[]>('remedy', db.raw('array_agg(distinct spot_id) as "spotIds"'));
}
