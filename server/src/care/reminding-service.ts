import { TZDate } from '@date-fns/tz';
import { remindsToday } from '@sombra/core';
import type { Knex } from 'knex';
import { asActor } from '../platform/db';
import { keepDoing } from '../platform/keep-doing';
import { timeZone } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { careLetters } from './letters';
import { allKeepers, findKeeper, inCharge, isOver, setKeeper, type KeptTree } from './repository';
import { writeTo, type CareDoorway } from './service';

/** Nobody is written to at night. Hours of the programme's day. */
const [firstHour, lastHour] = [7, 20] as const;
const everyMs = 10 * 60_000;
const actor = 'care reminders';

const isAsked = (keeper: KeptTree, today: string): boolean =>
  keeper.email !== null &&
  keeper.wants_letters &&
  keeper.established_on === null &&
  inCharge(keeper, today) &&
  remindsToday({ next: keeper.next, remindedOn: keeper.reminded_on, today });

/**
 * Writes to each keeper whose tree asks for water by tomorrow, every few days until it no longer does. Whoever is away is
 * spared, their deputy is written to. Each letter is an act of its own, asked about again under its keeper's lock: two
 * servers never write twice.
 */
export async function remindKeepers(db: Knex, doorway: CareDoorway): Promise<number> {
  const today = await programmeToday(db);
  let written = 0;
  for (const { id } of (await allKeepers(db, today)).filter((one) => isAsked(one, today))) {
    await asActor(db, actor, async (trx) => {
      const keeper = await findKeeper(trx, id, today);
      if (!keeper || !isAsked(keeper, today) || keeper.next?.kind !== 'water') return;
      const { on, litres } = keeper.next;
      const dose = { on: on < today ? today : on, litres, bucketL: keeper.bucket_l };
      await writeTo(trx, doorway, keeper, (about) => careLetters.reminder(about, dose));
      await setKeeper(trx, id, { reminded_on: today });
      written += 1;
    });
  }
  return written;
}

const isToBeTold = (keeper: KeptTree, today: string): boolean =>
  keeper.established_on !== null &&
  keeper.last_told_on === null &&
  keeper.email !== null &&
  keeper.wants_letters &&
  !isOver(keeper, today);

/** Tells each keeper whose tree was signed off that it needs them no more: once, under its keeper's lock. */
export async function tellEstablished(db: Knex, doorway: CareDoorway): Promise<number> {
  const today = await programmeToday(db);
  let written = 0;
  for (const { id } of (await allKeepers(db, today)).filter((one) => isToBeTold(one, today))) {
    await asActor(db, actor, async (trx) => {
      const keeper = await findKeeper(trx, id, today);
      if (!keeper || !isToBeTold(keeper, today)) return;
      await writeTo(trx, doorway, keeper, careLetters.last);
      await setKeeper(trx, id, { last_told_on: today });
      written += 1;
    });
  }
  return written;
}

/** Reminds in the background by day, until stopped. */
export function keepReminding(db: Knex, doorway: CareDoorway, onError: (error: unknown) => void): () => Promise<void> {
  const remind = async () => {
    const hour = TZDate.tz(await timeZone(db)).getHours();
    if (hour < firstHour || hour >= lastHour) return;
    await remindKeepers(db, doorway);
    await tellEstablished(db, doorway);
  };
  return keepDoing(remind, { everyMs, atOnce: true, onError });
}
