import { queueMail } from '../mail/repository';
import type { Db } from '../platform/db';
import { hashOf, newToken } from '../platform/secrets';
import { letters } from './letters';
import { dropRunOut, firstWaiting, placesTaken, setPersonState, setTokenHash } from './people-repository';
import { keepTeams, type KeptDayRow } from './repository';
import { addressOf, letterDay, mailOf, type Doorway } from './told-service';

/** What became free is kept so long for who waits. */
const offeredMinutes = 12 * 60;

/** Places that became free are offered to those who wait, first come first, as far as they reach. */
export async function offerFree(trx: Db, doorway: Doorway, day: KeptDayRow): Promise<void> {
  await dropRunOut(trx, day.id);
  for (;;) {
    const next = await firstWaiting(trx, day.id);
    if (!next) return;
    const ids = [next.person, ...next.with].map(({ id }) => id);
    if (day.capacity - (await placesTaken(trx, day.id)) < ids.length) return;
    const fresh = newToken();
    await setPersonState(trx, ids, 'held', offeredMinutes);
    await setTokenHash(trx, next.person.id, hashOf(fresh));
    const to = await addressOf(trx, doorway, day.id, next.person.id);
    const about = await letterDay(trx, day);
    const link = `${doorway.publicUrl}/place/${fresh}`;
    if (to !== '') {
      const letter = letters.held(about, { name: next.person.name, link, minutes: offeredMinutes });
      await queueMail(trx, [mailOf(day.id, next.person.id, to, letter, fresh)]);
    }
  }
}

/** Takes people out of their teams; who loses its lead gets the next of it. */
export async function leaveTeams(trx: Db, day: KeptDayRow, ids: readonly string[]): Promise<void> {
  if (!day.teams.some(({ helperIds }) => helperIds.some((id) => ids.includes(id)))) return;
  const teams = day.teams.map((team) => {
    const helperIds = team.helperIds.filter((id) => !ids.includes(id));
    return {
      ...team,
      helperIds,
      leadId: helperIds.includes(team.leadId) ? team.leadId : (helperIds[0] ?? team.leadId),
    };
  });
  await keepTeams(trx, day.id, { ...day, teams: teams.filter(({ helperIds }) => helperIds.length > 0) });
}
