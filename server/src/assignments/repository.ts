import type { Assign, Assignment, FieldPeople } from '@sombra/contract';
import { inLockOrder, type Db } from '../platform/db';

interface AssignmentRow {
  id: string;
  kind: Assignment['kind'];
  title: string;
  user_id: string;
  user_name: string;
  until_day: string;
  delivery_id: string | null;
  made_by: string;
  made_at: Date;
  ended_at: Date | null;
  version: number;
  spots: string[];
  water: Assignment['water'];
}

const assignmentOf = (row: AssignmentRow): Assignment => ({
  id: row.id,
  kind: row.kind,
  title: row.title,
  userId: row.user_id,
  userName: row.user_name,
  until: row.until_day,
  spotIds: row.spots,
  deliveryId: row.delivery_id,
  madeBy: row.made_by,
  madeAt: row.made_at.toISOString(),
  water: row.water,
  version: row.version,
});

function query(db: Db) {
  return db('assignment')
    .join('app_user as person', 'person.id', 'assignment.user_id')
    .orderBy(['assignment.until_day', 'assignment.made_at', 'assignment.id'])
    .select<AssignmentRow[]>(
      'assignment.*',
      'person.name as user_name',
      db.raw(`array(select spot_id from assignment_spot where assignment_id = assignment.id order by place) as spots`),
    );
}

/** Those that are not ended and whose last day has not passed; of one person, or of all. */
export async function openAssignments(db: Db, today: string, userId: string | null): Promise<Assignment[]> {
  const open = query(db).whereNull('assignment.ended_at').where('assignment.until_day', '>=', today);
  return (await (userId === null ? open : open.where('assignment.user_id', userId))).map(assignmentOf);
}

/** Held to the end of the act; `undefined` where it is not there or ended. */
export async function lockAssignment(trx: Db, id: string): Promise<Assignment | undefined> {
  await trx('assignment').where({ id }).forUpdate().first('id');
  const [row] = await query(trx).where('assignment.id', id).whereNull('assignment.ended_at');
  return row && assignmentOf(row);
}

/** Returns false where the id is there already. */
export async function insertAssignment(
  trx: Db,
  assign: Assign & Pick<Partial<Assignment>, 'water'>,
  by: string,
): Promise<boolean> {
  const { id, kind, title, userId, until, deliveryId, spotIds, water = null } = assign;
  const added = await trx('assignment')
    .insert({
      id,
      kind,
      title,
      user_id: userId,
      until_day: until,
      delivery_id: deliveryId,
      made_by: by,
      water: water && JSON.stringify(water),
    })
    .onConflict('id')
    .ignore()
    .returning('id');
  if (added.length === 0) return false;
  const spots = spotIds.map((spot_id, place) => ({ assignment_id: id, spot_id, place }));
  if (spots.length > 0) await trx('assignment_spot').insert(inLockOrder(spots));
  return true;
}

export async function endAssignment(trx: Db, id: string, by: string): Promise<void> {
  await trx('assignment')
    .where({ id })
    .update({ ended_at: trx.fn.now(), ended_by: by, version: trx.raw('version + 1') });
  await trx('hand_over').where({ assignment_id: id }).delete();
}

/** Puts a code in the place of one given before. */
export async function keepCode(
  trx: Db,
  code: { readonly assignmentId: string; readonly codeHash: string; readonly expiresAt: Date },
): Promise<void> {
  await trx('hand_over')
    .insert({ assignment_id: code.assignmentId, code_hash: code.codeHash, expires_at: code.expiresAt })
    .onConflict('assignment_id')
    .merge();
}

/** The assignment a code opens, once: the code is gone with it. */
export async function spendCode(trx: Db, codeHash: string): Promise<string | null> {
  const [spent] = await trx('hand_over')
    .where({ code_hash: codeHash })
    .whereRaw('expires_at > now()')
    .delete()
    .returning<{ assignment_id: string }[]>('assignment_id');
  return spent?.assignment_id ?? null;
}

export async function giveTo(trx: Db, id: string, userId: string): Promise<void> {
  await trx('assignment')
    .where({ id })
    .update({ user_id: userId, version: trx.raw('version + 1') });
}

/** Whoever may sign in, by name. */
export async function peopleWhoMaySignIn(db: Db): Promise<FieldPeople> {
  return db('app_user').whereNull('disabled_at').orderByRaw('lower(name), id').select('id', 'name', 'role');
}

/** Whose the assignments of a round are by now, by truck; those that were never given are left out. */
export async function roundAssignments(
  db: Db,
  asked: readonly { readonly truckId: string; readonly id: string }[],
): Promise<{ truckId: string; userName: string }[]> {
  const rows = await db('assignment')
    .join('app_user as person', 'person.id', 'assignment.user_id')
    .whereIn(
      'assignment.id',
      asked.map(({ id }) => id),
    )
    .select<{ id: string; name: string }[]>('assignment.id', 'person.name');
  return asked.flatMap(({ truckId, id }) =>
    rows.filter((row) => row.id === id).map(({ name }) => ({ truckId, userName: name })),
  );
}
