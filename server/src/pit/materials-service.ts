import type { MaterialsQuery, SeasonMaterials, StoreAmount, User } from '@sombra/contract';
import {
  ConflictError,
  materials,
  NotFoundError,
  plantingPlan,
  sayReason,
  shoppingList,
  spotLife,
  sumAmounts,
  type Amounts,
  type FieldRecord,
  type MaterialCode,
  type Practice,
} from '@sombra/core';
import type { Knex } from 'knex';
import Papa from 'papaparse';
import { asActor, type Db } from '../platform/db';
import { requireRole } from '../platform/sessions';
import { findPractice } from '../practice/repository';
import { currentPractice, recordsOfSpots } from '../record/repository';
import { dayTitle, keepStore, spotsToPlant, store } from './repository';

async function practiceAsked(db: Db, { practice: id, version }: MaterialsQuery): Promise<Practice> {
  if (!id) return currentPractice(db);
  const found = await findPractice(db, id, version ?? 1);
  if (!found) throw new NotFoundError('no such practice', 'practice');
  return found;
}

/** What the spots that are ready to plant take together, by one practice. @throws NotFoundError */
export async function seasonMaterials(db: Db, query: MaterialsQuery): Promise<SeasonMaterials> {
  const practice = await practiceAsked(db, query);
  const title = query.day ? await dayTitle(db, query.day) : 'Everything ready to plant';
  if (title === undefined) throw new NotFoundError('no such planting day', 'day');
  const spots = await spotsToPlant(db, query.day);
  const records = await recordsOfSpots(
    db,
    spots.map(({ spotId }) => spotId),
  );
  const lines: SeasonMaterials['spots'] = [];
  const without: SeasonMaterials['without'] = [];
  for (const { spotId, ref, place, species } of spots) {
    const life = spotLife((records.get(spotId) ?? []) as FieldRecord[], practice);
    const { stock, ground, assessment } = life;
    if (!stock) continue;
    const plan = plantingPlan({ practice: life.practice, stock, ground, assessment });
    if (plan.kind === 'no_plan') {
      without.push({ spotId, ref, why: plan.because.map((reason) => sayReason(reason, 'metric')).join(' ') });
      continue;
    }
    const { materials: amounts, labour, routine } = plan;
    lines.push({ spotId, ref, place, species, hours: labour.hours, weeklyL: routine.weeklyL, amounts });
  }
  const needed = sumAmounts(
    lines.map(({ amounts }) => amounts as Amounts),
    query.teams,
  );
  const { amounts: stored, versions } = await store(db);
  const weekly = lines.map(({ weeklyL }) => weeklyL);
  return {
    title,
    practice: { id: practice.id, version: practice.version, name: practice.name },
    spots: lines,
    without,
    hours: lines.reduce((sum, { hours }) => sum + hours, 0),
    weeklyL: weekly.includes(null) ? null : weekly.reduce<number>((sum, litres) => sum + (litres ?? 0), 0),
    lines: shoppingList(needed, stored).map((line) => ({ ...line, version: versions[line.code] ?? 0 })),
  };
}

/** Writes down what lies in store. @throws ConflictError where somebody counted it since */
export async function countStore(db: Knex, user: User, counted: StoreAmount): Promise<void> {
  requireRole(user, ['coordinator', 'crew_lead'], 'count the store');
  const kept = await asActor(db, user.name, (trx) => keepStore(trx, counted));
  if (!kept) {
    throw new ConflictError('the store was counted since', 'version', {
      title: 'Somebody counted this material since you read it. Yours was not stored.',
    });
  }
}

const columns = ['material', 'unit', 'needed', 'in_store', 'pack', 'packs', 'bought'] as const;

/** The shopping list as a file: what is needed, what is there, what to buy. */
export function materialsCsv({ lines }: SeasonMaterials): string {
  const data = lines.map(({ code, needed, inStore, packs, bought }) => {
    const { name, unit, pack } = materials[code as MaterialCode];
    return [name, unit, needed.toFixed(1), inStore.toFixed(1), pack.name, packs, bought];
  });
  return `${Papa.unparse({ fields: [...columns], data }, { newline: '\r\n' })}\r\n`;
}
