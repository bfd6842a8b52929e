import type { Cohort } from '@sombra/contract';
import { cohortMeasures, type CohortMeasure, type InstrumentReading, type StockKind } from '@sombra/core';
import type { Db } from '../platform/db';
import { plantingSeason } from '../town/filter-repository';

interface MemberRow {
  readonly spotId: string;
  readonly self: boolean;
  readonly species: string | null;
  readonly season: number;
  readonly stockKind: StockKind | null;
  readonly troubled: boolean;
  readonly shootMm: number | null;
  readonly diebackPct: number | null;
  readonly flareDepthMm: number | null;
  readonly mulchDepthMm: number | null;
  readonly waterShare: number | null;
}

const stockOf = (period: string): string => `(select made.facts->>'kind' from field_record made
  where made.spot_id = ${period}.spot_id and made.kind = 'stock' order by made.happened_at desc, made.id desc limit 1)`;
/** More are not compared: a rank is as good by so many. */
const most = 2000;

/** A planted tree with the others of its species, season and stock that stand; `null` for one that is not planted. */
export async function cohortOf(db: Db, spotId: string): Promise<Cohort | null> {
  const { rows } = await db.raw<{ rows: MemberRow[] }>(
    `with own as (
       select period.spot_id, tree.species, ${plantingSeason()} as season, ${stockOf('period')} as stock
       from spot_period period join tree on tree.spot_id = period.spot_id and tree.standing
       where period.spot_id = :spotId and period.until_day is null and period.planted_on is not null
     )
     select period.spot_id as "spotId", period.spot_id = own.spot_id as self, own.species, own.season, own.stock as "stockKind",
       period.level in ('act', 'urgent') as troubled, water.share as "waterShare",
       (look.facts->>'shootMm')::float8 as "shootMm", (look.facts->>'diebackPct')::float8 as "diebackPct",
       (look.facts->>'flareDepthMm')::float8 as "flareDepthMm", (look.facts->>'mulchDepthMm')::float8 as "mulchDepthMm"
     from own
     join tree on tree.standing and tree.species is not distinct from own.species
     join spot_period period on period.spot_id = tree.spot_id and period.until_day is null
       and period.planted_on between make_date(own.season, 7, 1) and make_date(own.season + 1, 6, 30)
     left join tree_water water on water.spot_id = period.spot_id
     left join lateral (
       select made.facts from field_record made
       where made.spot_id = period.spot_id and made.kind = 'inspection'
         and not exists (select from field_record later where later.supersedes = made.id)
         and made.facts->>'inspectedOn' >= period.planted_on::text
       order by made.happened_at desc, made.id desc limit 1
     ) look on true
     where ${stockOf('period')} is not distinct from own.stock
     order by period.spot_id = own.spot_id desc, period.spot_id
     limit :most`,
    { spotId, most },
  );
  const [own, ...others] = rows;
  if (!own?.self) return null;
  const valueOf = (row: MemberRow, measure: CohortMeasure): number[] => {
    const value = row[measure];
    return value === null ? [] : [value];
  };
  // Few trees were ever measured by an instrument: the others are asked for only where this one was.
  const [readings = []] = await instrumentsAt(db, [spotId]);
  const read =
    readings.length > 0
      ? (
          await instrumentsAt(
            db,
            others.map((row) => row.spotId),
          )
        ).flat()
      : [];
  return {
    species: own.species,
    season: own.season,
    stockKind: own.stockKind,
    others: others.length,
    troubled: others.filter(({ troubled }) => troubled).length,
    measures: cohortMeasures.flatMap((measure) =>
      valueOf(own, measure).map((value) => ({
        measure,
        own: value,
        values: others.flatMap((row) => valueOf(row, measure)),
      })),
    ),
    instruments: readings.map(({ kind, device, value: mine }) => ({
      ...{ kind, device, own: mine },
      values: read.filter((one) => one.kind === kind && one.device === device).map(({ value }) => value),
    })),
  };
}

/** What instruments gave at the last look that used one, of each tree that stands on these spots and had such a look. */
async function instrumentsAt(db: Db, spotIds: readonly string[]): Promise<(readonly InstrumentReading[])[]> {
  const { rows } = await db.raw<{ rows: { instruments: readonly InstrumentReading[] }[] }>(
    `select distinct on (made.spot_id) made.facts->'instruments' as instruments
     from field_record made
     join spot_period period on period.spot_id = made.spot_id and period.until_day is null
     where made.spot_id = any(?::uuid[]) and made.kind = 'inspection' and made.facts \\? 'instruments'
       and not exists (select from field_record later where later.supersedes = made.id)
       and made.facts->>'inspectedOn' >= period.planted_on::text
     order by made.spot_id, made.happened_at desc, made.id desc`,
    [[...spotIds]],
  );
  return rows.map(({ instruments }) => instruments);
}
