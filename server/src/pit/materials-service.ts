import type { MaterialsQuery, SeasonMaterials, StoreAmount, User } from '@sombra/contract';
import {
  addDaysTo,
  amountsOfNeeds,
  ConflictError,
  expectedStock,
  materials,
  NotFoundError,
  basisWith,
  wholePlan,
  sayPack,
  sayReason,
  shoppingList,
  spotLife,
  sumAmounts,
  needsOf,
  type Amounts,
  type IsoDate,
  type Practice,
  type OrderedTree,
} from '@sombra/core';
import type { Knex } from 'knex';
import { csvTable } from '../platform/csv';
import { asActor, type Db } from '../platform/db';
import { currentPractice, findPractice, newestVersion } from '../practice/repository';
import { recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import { currentRules } from '../rules/repository';
import { findList } from '../match/repository';
import { dayTitle, keepStore, spotsByIds, spotsToPlant, store, type CardSpot } from './repository';
import { workBatches } from '../inspect/remedies-repository';
import { programmeToday } from '../programme/today';

async function practiceAsked(db: Db, { practice: id, version }: MaterialsQuery): Promise<Practice> {
  if (!id) return currentPractice(db);
  // The newest version where none is named.
  const found = await findPractice(db, id, version ?? (await newestVersion(db, id)));
  if (!found) throw new NotFoundError('no such practice', 'practice');
  return found;
}

interface Asked {
  readonly title: string;
  readonly spots: readonly CardSpot[];
  /** By spot: the tree a list picked for it. */
  readonly ordered: ReadonlyMap<string, OrderedTree & { readonly species: string }>;
}

/** The spots that are counted, under their name. @throws NotFoundError */
async function spotsAsked(db: Db, { day, list }: MaterialsQuery): Promise<Asked> {
  const today = await programmeToday(db);
  if (list) {
    const found = await findList(db, list);
    if (!found) throw new NotFoundError('no such list', 'list');
    const { picks, offers } = found.result ?? { picks: [], offers: [] };
    const offerOf = new Map(offers.map((offer) => [offer.id, offer]));
    const ordered = picks.flatMap(({ spotId, offerId }) => {
      const offer = offerOf.get(offerId);
      return offer
        ? [[spotId, { kind: offer.stockKind, caliperMm: offer.caliperMm, species: offer.species }] as const]
        : [];
    });
    return { title: found.title, spots: await spotsByIds(db, today, found.asked.spotIds), ordered: new Map(ordered) };
  }
  const title = day ? await dayTitle(db, day) : 'Everything ready to plant';
  if (title === undefined) throw new NotFoundError('no such planting day', 'day');
  return { title, spots: await spotsToPlant(db, today, day), ordered: new Map() };
}

/** Remedies due by then are ordered for with what is planted. */
const monthAhead = async (db: Db): Promise<IsoDate> => addDaysTo(await programmeToday(db), 30);

/**
 * What the spots that are ready to plant take together, by one practice; with everything, what the remedies of the month
 * use up too. @throws NotFoundError
 */
export async function seasonMaterials(db: Db, query: MaterialsQuery): Promise<SeasonMaterials> {
  const [practice, programme] = [await practiceAsked(db, query), await programmeBasis(db)];
  const { title, spots, ordered } = await spotsAsked(db, query);
  const { work } = await currentRules(db);
  const records = await recordsOfSpots(
    db,
    spots.map(({ spotId }) => spotId),
  );
  const lines: SeasonMaterials['spots'] = [];
  const without: SeasonMaterials['without'] = [];
  let expected = 0;
  for (const { spotId, ref, place, species, plantOn } of spots) {
    const known = records.get(spotId) ?? [];
    const life = spotLife(known, contextOf(programme, spotId, known, { practice, plantOn }));
    const picked = ordered.get(spotId);
    const basis = life.stock || !picked ? life : basisWith(life, { stock: expectedStock(picked) });
    const plan = wholePlan(basis, { work });
    if (!plan) {
      if (query.list) without.push({ spotId, ref, why: 'The list picks no tree for this place.' });
      continue;
    }
    if (!life.stock) expected += 1;
    if (plan.kind === 'no_plan') {
      without.push({ spotId, ref, why: plan.because.map((reason) => sayReason(reason, 'metric')).join(' ') });
      continue;
    }
    const { materials: amounts, labour, routine } = plan;
    lines.push({
      spotId,
      ref,
      place,
      species: species ?? picked?.species ?? null,
      hours: labour.hours,
      weeklyL: routine.weeklyL,
      amounts,
    });
  }
  const remedies =
    query.day || query.list ? [] : await workBatches(db, { place: undefined, dueBy: await monthAhead(db) });
  const needed = sumAmounts(
    [...lines.map(({ amounts }) => amounts as Amounts), amountsOfNeeds(needsOf(remedies), practice)],
    query.teams,
  );
  const { amounts: stored, versions } = await store(db);
  const weekly = lines.map(({ weeklyL }) => weeklyL);
  return {
    title,
    expected,
    remedies: remedies.reduce((sum, { count }) => sum + count, 0),
    practice: { id: practice.id, version: practice.version, name: practice.name },
    spots: lines,
    without,
    hours: lines.reduce((sum, { hours }) => sum + hours, 0),
    weeklyL: weekly.includes(null) ? null : weekly.reduce<number>((sum, litres) => sum + (litres ?? 0), 0),
    lines: shoppingList(needed, stored, work.packs).map((line) => ({ ...line, version: versions[line.code] ?? 0 })),
  };
}

/** Writes down what lies in store. @throws ConflictError where somebody counted it since */
export async function countStore(db: Knex, user: User, counted: StoreAmount): Promise<void> {
  const kept = await asActor(db, user.name, (trx) => keepStore(trx, counted));
  if (!kept) {
    throw new ConflictError('the store was counted since', 'version', {
      title: 'Somebody counted this material since you read it. Yours was not stored.',
    });
  }
}

const columns = ['material', 'unit', 'needed', 'in_store', 'pack', 'packs', 'bought'] as const;

const hundredths = (value: number): string => String(Math.round(value * 100) / 100);

/** The shopping list as a file: what is needed, what is there, what to buy. */
export function materialsCsv({ lines }: SeasonMaterials): string {
  const data = lines.map(({ code, needed, inStore, packs, packSize, bought }) => {
    const { name, unit } = materials[code];
    const pack = sayPack(code, packSize, 'metric');
    return [name, unit, hundredths(needed), hundredths(inStore), pack, packs, bought];
  });
  return csvTable(columns, data);
}
