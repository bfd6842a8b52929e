import {
  askListSchema,
  seasonListSchema,
  speciesSchema,
  type AskList,
  type KeptSpecies,
  type ListHead,
  type ListResult,
  type Offer,
  type Offers,
  type SeasonList,
} from '@sombra/contract';
import { type IsoDate, type PopulationCount, type Species, type StockKind } from '@sombra/core';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';
import { orderBodyOf } from '../orders/repository';

interface SpeciesRow {
  botanical: string;
  family: string;
  body: unknown;
  version: number;
}

export async function speciesLibrary(db: Db): Promise<Species[]> {
  const rows = await db<SpeciesRow>('species').orderBy('botanical').select('body');
  return rows.map(({ body }) => readStored(speciesSchema, body, 'species'));
}

/** The library with how many trees of each stand, and for how many places each is chosen. */
export async function speciesWithCounts(db: Db): Promise<KeptSpecies[]> {
  const rows: (SpeciesRow & { standing: number; chosen: number })[] = await db('species')
    .joinRaw(
      `left join (
         select tree.species, count(*) filter (where period.planted_on is not null) as standing,
           count(*) filter (where period.planted_on is null) as chosen
         from tree join spot_period period on period.spot_id = tree.spot_id and period.until_day is null
         where tree.standing group by tree.species
       ) held on held.species = species.botanical`,
    )
    .orderBy('botanical')
    .select('species.*', db.raw('coalesce(standing, 0) as standing'), db.raw('coalesce(chosen, 0) as chosen'));
  return rows.map(({ body, version, standing, chosen }) => ({
    species: readStored(speciesSchema, body, 'species'),
    version,
    standing: Number(standing),
    chosen: Number(chosen),
  }));
}

export async function findSpecies(
  db: Db,
  botanical: string,
): Promise<{ species: Species; version: number } | undefined> {
  const row = await db<SpeciesRow>('species').where({ botanical }).forUpdate().first();
  return row && { species: readStored(speciesSchema, row.body, `species ${botanical}`), version: row.version };
}

/** Keeps a version of a species. Returns false where somebody kept that one first. */
export async function keepSpecies(db: Db, species: Species, version: number, by: string): Promise<boolean> {
  const row = {
    botanical: species.botanical,
    family: species.family,
    body: JSON.stringify(species),
    version,
    changed_by: by,
    changed_at: db.fn.now(),
  };
  const kept = await db('species')
    .insert(row)
    .onConflict('botanical')
    .merge()
    .where('species.version', version - 1)
    .returning<{ version: number }[]>('version');
  return kept.length > 0;
}

/** Trees that stand or are chosen, by species; without the spots named. Trees without a species count too. */
export async function population(db: Db, without: readonly string[]): Promise<PopulationCount[]> {
  const { rows } = await db.raw<{ rows: { species: string; family: string; count: string }[] }>(
    `select coalesce(tree.species, 'unknown') as species,
       coalesce(species.family, split_part(coalesce(tree.species, 'unknown'), ' ', 1)) as family, count(*) as count
     from spot_period period join tree on tree.spot_id = period.spot_id and tree.standing
     left join species on species.botanical = tree.species
     where period.until_day is null and (period.planted_on is not null or tree.species is not null)
       and not (period.spot_id = any(?::uuid[]))
     group by 1, 2 order by 3 desc`,
    [[...without]],
  );
  return rows.map((row) => ({ ...row, count: Number(row.count) }));
}

// Nurseries

const offerColumns = [
  'nursery_offer.id',
  'nursery.name as nursery',
  'nursery_offer.species',
  'stock_kind as stockKind',
  'caliper_mm as caliperMm',
  'height_m as heightM',
  'price',
  'available',
  'list_day as listDay',
] as const;

export async function allOffers(db: Db): Promise<Offers> {
  const offers = await db('nursery_offer')
    .join('nursery', 'nursery.id', 'nursery_offer.nursery_id')
    .orderBy(['nursery_offer.species', 'price'])
    .select<Offer[]>(...offerColumns);
  const rows = await db('nursery')
    .orderBy('name')
    .select<{ name: string; terms: string; list_day: string | null }[]>('name', 'terms', 'list_day');
  const nurseries = rows.map(({ name, terms, list_day }) => ({
    name,
    terms,
    listDay: list_day,
    offers: offers.filter(({ nursery }) => nursery === name).length,
  }));
  return { nurseries, offers };
}

export interface NewOffer {
  readonly id: string;
  readonly species: string;
  readonly stockKind: StockKind;
  readonly caliperMm: number;
  readonly heightM: number | null;
  readonly price: number;
  readonly available: number;
}

/** Puts a nursery's list in the place of its last one. */
export async function replaceOffers(
  trx: Db,
  nursery: { id: string; name: string; listDay: IsoDate; terms?: string },
  offers: readonly NewOffer[],
): Promise<void> {
  const { id, name, listDay, terms } = nursery;
  await trx('nursery')
    .insert({ id, name, list_day: listDay, ...(terms === undefined ? {} : { terms }) })
    .onConflict('name')
    .merge({ list_day: listDay });
  const row = await trx('nursery').where({ name }).first<{ id: string }>('id');
  await trx('nursery_offer').where({ nursery_id: row.id }).delete();
  const rows = offers.map((offer) => ({
    id: offer.id,
    nursery_id: row.id,
    species: offer.species,
    stock_kind: offer.stockKind,
    caliper_mm: offer.caliperMm,
    height_m: offer.heightM,
    price: offer.price,
    available: offer.available,
  }));
  if (rows.length > 0) await trx.batchInsert('nursery_offer', rows, 500);
}

// The season's list

interface ListRow {
  id: string;
  title: string;
  state: SeasonList['state'];
  asked: unknown;
  made_by: string;
  made_at: Date;
  progress: unknown;
  problem: string | null;
  result: unknown;
}

export async function insertList(db: Db, ask: AskList, by: string): Promise<void> {
  const row = { id: ask.id, title: ask.title, state: 'queued', asked: JSON.stringify(ask), made_by: by };
  await db('season_list').insert(row).onConflict('id').ignore();
}

/** What is kept of a list as JSON, read by its schema. */
const keptList = ({ id, asked, progress, result }: Pick<ListRow, 'id' | 'asked' | 'progress' | 'result'>) => {
  const { shape } = seasonListSchema;
  return {
    asked: readStored(askListSchema, asked, `season's list ${id}`),
    progress: readStored(shape.progress, progress, `progress of season's list ${id}`),
    result: readStored(shape.result, result, `result of season's list ${id}`),
  };
};

export async function listHeads(db: Db): Promise<ListHead[]> {
  const rows = await db<ListRow>('season_list')
    .orderBy('made_at', 'desc')
    .limit(50)
    .select('id', 'title', 'state', 'made_by', 'made_at', 'asked');
  return rows.map((row) => ({
    id: row.id,
    title: row.title,
    state: row.state,
    madeBy: row.made_by,
    madeAt: row.made_at.toISOString(),
    spots: readStored(askListSchema, row.asked, `season's list ${row.id}`).spotIds.length,
  }));
}

export async function findList(db: Db, id: string): Promise<SeasonList | undefined> {
  const row = await db<ListRow>('season_list').where({ id }).first();
  if (!row) return undefined;
  const kept = keptList(row);
  const spots = await db('spot')
    .join('place', 'place.id', 'spot.place_id')
    .whereRaw('spot.id = any(?::uuid[])', [kept.asked.spotIds])
    .orderBy('ref')
    .select<SeasonList['spots']>('spot.id as spotId', 'ref', 'place.name as place');
  const orders = await db('nursery_order')
    .where({ list_id: id })
    .orderBy('number')
    .select<{ id: string; nursery: string; number: string; body: unknown }[]>('id', 'nursery', 'number', 'body');
  return {
    id: row.id,
    title: row.title,
    state: row.state,
    ...kept,
    madeBy: row.made_by,
    madeAt: row.made_at.toISOString(),
    problem: row.problem,
    spots,
    orders: orders.map(({ body, ...order }) => {
      const { lines } = orderBodyOf(body, order.number);
      return {
        ...order,
        trees: lines.reduce((sum, { count }) => sum + count, 0),
        total: lines.reduce((sum, { count, price }) => sum + count * price, 0),
      };
    }),
  };
}

/** Locks a list for an act; returns its state. */
export async function lockList(trx: Db, id: string): Promise<SeasonList['state'] | undefined> {
  const row = await trx<ListRow>('season_list').where({ id }).forUpdate().first('state');
  return row?.state;
}

/** Takes the next list that waits, or one whose solver has died, for a while. */
export async function takeList(db: Db, holdS: number): Promise<string | undefined> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(
    `update season_list set state = 'solving', held_until = now() + make_interval(secs => ?)
     where id = (select id from season_list
       where state = 'queued' or (state = 'solving' and held_until < now())
       order by made_at limit 1 for update skip locked)
     returning id`,
    [holdS],
  );
  return rows[0]?.id;
}

/** Says how far a list is and holds it on; false once somebody cancelled it. */
export async function keepProgress(
  db: Db,
  id: string,
  progress: NonNullable<SeasonList['progress']>,
  holdS: number,
): Promise<boolean> {
  const kept = await db('season_list')
    .where({ id, state: 'solving' })
    .update({ progress: JSON.stringify(progress), held_until: db.raw('now() + make_interval(secs => ?)', [holdS]) });
  return kept > 0;
}

export async function endList(
  db: Db,
  id: string,
  end: { state: 'solved' | 'infeasible' | 'failed'; result: ListResult | null; problem: string | null },
): Promise<void> {
  await db('season_list')
    .where({ id, state: 'solving' })
    .update({
      state: end.state,
      result: end.result === null ? null : JSON.stringify(end.result),
      problem: end.problem,
      progress: null,
      held_until: null,
    });
}

export async function setListState(
  db: Db,
  id: string,
  from: readonly SeasonList['state'][],
  state: SeasonList['state'],
): Promise<boolean> {
  const set = await db('season_list')
    .where({ id })
    .whereIn('state', [...from])
    .update({ state, progress: null, held_until: null });
  return set > 0;
}
