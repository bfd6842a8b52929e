import {
  keptDayOf,
  type ChangeDay,
  type DayDetail,
  type KeepTeams,
  type NewDay,
  type NewDayEvent,
  type User,
} from '@sombra/contract';
import {
  addDaysTo,
  clockOf,
  ConflictError,
  dayParts,
  InvalidInputError,
  NotFoundError,
  requireDayHours,
  scoreTeams,
  shapeOfWork,
  teamTaskOf,
  whenItHappened,
  type IsoDate,
  type ToolCode,
} from '@sombra/core';
import type { Knex } from 'knex';
import { asActor, type Db } from '../platform/db';
import { hashOf, newToken } from '../platform/secrets';
import { programmeToday } from '../programme/today';
import { spotsByIds, takeFromStore } from '../pit/repository';
import { announce } from '../record/repository';
import { deriveAndKeep } from '../record/derive';
import { dayDetail, requireDay, treesOfDay } from './detail-service';
import { keepPresence, peopleOf } from './people-repository';
import { tellAll, type Doorway } from './told-service';
import {
  bookedElsewhere,
  countTool,
  currentWaiver,
  eventsOf,
  insertDay,
  insertEvent,
  insertWaiver,
  keepTeams,
  keepWorked,
  lockDay,
  setLink,
  setState,
  updateDay,
  type KeptDayRow,
} from './repository';

/** Days are planned no farther ahead. */
const farthestDays = 550;

async function requireBookable(
  trx: Db,
  day: Pick<NewDay, 'id' | 'onDay' | 'spotIds'>,
  before: IsoDate | null,
): Promise<void> {
  const today = await programmeToday(trx);
  const last = addDaysTo(today, farthestDays);
  if (day.onDay !== before && (day.onDay < today || day.onDay > last)) {
    throw new InvalidInputError(`onDay must be within ${today} to ${last}, got ${day.onDay}`, 'onDay');
  }
  if (new Set(day.spotIds).size < day.spotIds.length) {
    throw new InvalidInputError('spotIds must not name a spot twice', 'spotIds');
  }
  const there = await spotsByIds(trx, day.onDay, day.spotIds);
  if (there.length < day.spotIds.length) throw new NotFoundError('a spot is not there', 'spotIds');
  const [other] = await bookedElsewhere(trx, day.id, day.spotIds, today);
  if (other) {
    throw new ConflictError('a spot is of another planting day', 'spotIds', {
      title: `${other.ref} is to be planted on another day already: ${other.title}`,
    });
  }
}

/** What a place waits for depends on its booked day: worked out again for the spots that came or went. */
async function tellSpots(trx: Knex.Transaction, spotIds: readonly string[]): Promise<void> {
  if (spotIds.length === 0) return;
  await deriveAndKeep(trx, [...spotIds]);
  await announce(trx, [...spotIds]);
}

/**
 * Makes a day of spots, a date and how many people. Sent twice, it is made once.
 * @throws InvalidInputError for a date that has passed or is too far, ConflictError for a spot of another day
 */
export async function makeDay(db: Knex, user: User, asked: NewDay): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    const from = asked.copyOf ? await requireDay(trx, asked.copyOf) : undefined;
    await requireBookable(trx, asked, null);
    if (await insertDay(trx, asked, from, user.name)) await tellSpots(trx, asked.spotIds);
  });
}

async function lockAt(trx: Db, id: string, version: number | null): Promise<KeptDayRow> {
  const kept = await lockDay(trx, id);
  if (!kept) throw new NotFoundError('no such planting day', 'id', { title: 'There is no such planting day' });
  if (version !== null && kept.version !== version) {
    throw new ConflictError(`the day is at version ${kept.version}, got ${version}`, 'version', {
      title: 'Somebody changed this day since you read it. Yours was not stored.',
      current: kept,
    });
  }
  return kept;
}

/** @throws ConflictError where it was changed since, InvalidInputError for hours that do not follow each other */
export async function changeDay(db: Knex, user: User, id: string, change: ChangeDay): Promise<void> {
  requireDayHours(change.hours);
  await asActor(db, user.name, async (trx) => {
    const kept = await lockAt(trx, id, change.version);
    await requireBookable(trx, { ...change, id }, kept.onDay);
    await updateDay(trx, id, change);
    const gone = kept.spotIds.filter((spotId) => !change.spotIds.includes(spotId));
    const moved =
      change.onDay !== kept.onDay ? change.spotIds : change.spotIds.filter((one) => !kept.spotIds.includes(one));
    if (gone.length > 0) {
      const teams = kept.teams.map((team) => ({ ...team, spotIds: team.spotIds.filter((one) => !gone.includes(one)) }));
      await keepTeams(trx, id, { ...kept, teams, version: change.version });
    }
    await tellSpots(trx, [...gone, ...moved]);
  });
}

/**
 * Keeps teams as they were put together. A minor goes with their guardian and nobody without a waiver; the rest is the
 * planner's to decide.
 * @throws InvalidInputError naming who or what does not fit, ConflictError where the day was changed since
 */
export async function arrangeTeams(db: Knex, user: User, id: string, asked: KeepTeams): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    await lockAt(trx, id, asked.version);
    const detail = await dayDetail(trx, id);
    requireSoundTeams(detail, asked);
    await keepTeams(trx, id, asked);
    await announce(trx, []);
  });
}

function requireSoundTeams(detail: DayDetail, { teams }: Pick<KeepTeams, 'teams'>): void {
  const planted = new Set(detail.trees.filter((tree) => tree.planted).map(({ spotId }) => spotId));
  const open = teams.map((team) => ({ ...team, spotIds: team.spotIds.filter((spotId) => !planted.has(spotId)) }));
  scoreTeams(teamTaskOf(keptDayOf(detail)), open);
  for (const { leadId, helperIds } of teams) {
    const lead = detail.people.find(({ id }) => id === leadId);
    if (!helperIds.includes(leadId) || !lead || lead.minor) {
      throw new InvalidInputError('leadId must be a grown-up of the team', 'teams');
    }
    for (const minor of detail.people.filter((one) => one.minor && helperIds.includes(one.id))) {
      if (!minor.guardianId || !helperIds.includes(minor.guardianId)) {
        throw new InvalidInputError('a minor must be in the team of their guardian', 'teams', {
          title: `${minor.name} is a minor and has to be in the team of who comes with them`,
        });
      }
    }
  }
}

/** A new link for registering; the one before opens nothing any more. `open` false takes it back. */
export async function renewLink(db: Knex, user: User, id: string, open: boolean): Promise<{ path: string }> {
  const token = newToken();
  await asActor(db, user.name, async (trx) => {
    const day = await lockAt(trx, id, null);
    if (open && !dayParts[day.kind].people) {
      const what = day.kind === 'contractor' ? 'A contractor’s day' : 'A hand-out';
      throw new InvalidInputError('only a day of volunteers is registered for', 'open', {
        title: `${what} has no registration: make it a day of volunteers first`,
      });
    }
    await setLink(trx, id, open ? hashOf(token) : null);
  });
  return { path: open ? `/join/${token}` : '' };
}

/**
 * Keeps what happened on a day, once. Who is seen is marked as come; a day that is called off, or closed with its hours,
 * is so from then on.
 */
export async function keepEvent(
  db: Knex,
  doorway: Doorway,
  user: User,
  id: string,
  { event, deviceNow }: { readonly event: NewDayEvent; readonly deviceNow: string | null },
): Promise<void> {
  const { happenedAt: at } = whenItHappened(event.at, { deviceNow, aheadMs: event.aheadMs }, new Date().toISOString());
  await asActor(db, user.name, async (trx) => {
    const day = await lockAt(trx, id, null);
    await requireKnown(trx, day, event);
    if (!(await insertEvent(trx, id, { ...event, at }, user))) return;
    if (event.kind === 'checked_in') await keepPresence(trx, event.facts.personId, id, 'came_at', at);
    if (event.kind === 'went_home') await keepPresence(trx, event.facts.personId, id, 'left_at', at);
    if (event.kind === 'weather_decided') {
      if (day.state !== 'closed') await setState(trx, id, event.facts.advice === 'call_off' ? 'called_off' : 'planned');
      await tellAll(trx, doorway, day, { id: event.id, words: sayDecision(event.facts) });
    }
    if (event.kind === 'closed') await closeDay(trx, day, event.facts.hours);
    await announce(trx, []);
  });
}

function sayDecision({ advice, beginMin, why }: Extract<NewDayEvent, { kind: 'weather_decided' }>['facts']): string {
  const what = {
    go: 'The day goes as planned.',
    delay: `We begin later${beginMin === null ? '' : `, at ${clockOf(beginMin)}`}.`,
    call_off: 'The day is called off.',
  }[advice];
  return `${what} ${why}`;
}

async function requireKnown(trx: Db, day: KeptDayRow, event: NewDayEvent): Promise<void> {
  if (event.kind === 'handed_out') await requireHandOut(trx, day, event);
  if (event.kind === 'checked_in' || event.kind === 'went_home') {
    const people = await peopleOf(trx, day.id);
    if (!people.some(({ id }) => id === event.facts.personId)) {
      throw new NotFoundError('nobody of this day has this id', 'facts.personId', {
        title: 'This person is not of this day',
      });
    }
  }
}

/** A tree leaves only for a spot that may be dug, by whom its ground belongs to, and once it was accepted itself. */
async function requireHandOut(
  trx: Db,
  day: KeptDayRow,
  { id, facts: { spotId } }: Extract<NewDayEvent, { kind: 'handed_out' }>,
): Promise<void> {
  if (!dayParts[day.kind].handsOut) {
    throw new InvalidInputError('only a hand-out gives trees to residents', 'facts.spotId', {
      title: 'This day hands no trees out',
    });
  }
  const given = (await eventsOf(trx, day.id)).find((one) => one.kind === 'handed_out' && one.facts.spotId === spotId);
  // Sent again it is the same one, whatever became of the tree since.
  if (given?.id === id) return;
  if (given?.kind === 'handed_out') {
    throw new ConflictError('this tree was handed out already', 'facts.spotId', {
      title: `This tree was handed to ${given.facts.to} already`,
    });
  }
  const { trees } = await treesOfDay(trx, day.spotIds.includes(spotId) ? [spotId] : [], day.onDay);
  const tree = trees[0];
  if (!tree) {
    throw new NotFoundError('no spot of this day has this id', 'facts.spotId', {
      title: 'This tree is not of this day',
    });
  }
  const faults: readonly (string | false)[] = [
    tree.planted && 'is planted already',
    tree.cover === 'none' && `may not be dug on that day: ${tree.why}`,
    tree.leaveMissing && 'lacks the consent or permit it asks for',
    tree.stock !== 'accepted' && 'has no tree that was received and accepted',
  ];
  const fault = faults.find((one) => one !== false);
  if (fault) throw new InvalidInputError(`${tree.ref} ${fault}`, 'facts.spotId', { title: `${tree.ref} ${fault}` });
}

/**
 * The hours a day took, beside those ruled for what was planted on it: the pace is learnt from them. What was planted
 * took its materials out of the store, once.
 */
async function closeDay(trx: Db, day: KeptDayRow, workedH: number): Promise<void> {
  const { trees, used } = await treesOfDay(trx, day.spotIds, day.onDay);
  if (day.state !== 'closed') await takeFromStore(trx, used);
  await setState(trx, day.id, 'closed');
  const planted = trees.filter((tree) => tree.planted && tree.doneMin !== null && tree.ruledH > 0);
  const ruledH = planted.reduce((sum, tree) => sum + tree.ruledH, 0);
  if (ruledH === 0 || workedH <= 0) return;
  const shape = shapeOfWork(planted.map((tree) => ({ ...tree, hours: tree.ruledH })));
  await keepWorked(trx, day.id, { ruledH, workedH, ...shape });
}

export async function keepWaiver(db: Knex, user: User, waiver: { version: number; text: string }): Promise<void> {
  await asActor(db, user.name, async (trx) => {
    const current = await currentWaiver(trx);
    const next = (current?.version ?? 0) + 1;
    if (waiver.version !== next) {
      throw new ConflictError(`the waiver is at version ${next - 1}`, 'version', {
        title: 'Somebody changed the waiver since you read it. Yours was not stored.',
        current,
      });
    }
    await insertWaiver(trx, waiver, user.name);
  });
}

export async function keepToolCount(db: Knex, user: User, counted: { tool: ToolCode; count: number }): Promise<void> {
  await asActor(db, user.name, (trx) => countTool(trx, counted.tool, counted.count));
}
