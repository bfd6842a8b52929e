import type { ChangeView, SavedView, SaveView, User } from '@sombra/contract';
import { ConflictError, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { asActor, type Db } from '../platform/db';
import { deleteView, findView, insertView, lockViews, nameTaken, updateView, viewsOf } from './repository';

async function requireFreeName(db: Db, user: User, name: string, id: string): Promise<void> {
  // One's views are kept one after another: two of a name at once must see each other.
  await lockViews(db, user.id);
  if (await nameTaken(db, user.id, name, id)) {
    throw new InvalidInputError('name is taken by another view of yours', 'name', {
      title: 'You have a view of this name already; choose another name',
    });
  }
}

/** Keeps a view under a name. Sent twice, it is kept once. */
export async function saveView(db: Knex, user: User, view: SaveView): Promise<SavedView[]> {
  return asActor(db, user.name, async (trx) => {
    await requireFreeName(trx, user, view.name, view.id);
    await insertView(trx, user.id, view);
    return viewsOf(trx, user.id);
  });
}

/** @throws ConflictError when the view was changed elsewhere since it was read */
export async function changeView(db: Knex, user: User, id: string, change: ChangeView): Promise<SavedView[]> {
  return asActor(db, user.name, async (trx) => {
    const kept = await findView(trx, user.id, id);
    if (!kept) throw new NotFoundError('no such view', 'id');
    if (kept.version !== change.version) {
      throw new ConflictError(`view is at version ${kept.version}, got ${change.version}`, 'version', {
        title: 'This view was changed on another screen first',
        current: kept,
      });
    }
    await requireFreeName(trx, user, change.name, id);
    await updateView(trx, { ...change, id, version: kept.version + 1 });
    return viewsOf(trx, user.id);
  });
}

export async function dropView(db: Knex, user: User, id: string): Promise<SavedView[]> {
  return asActor(db, user.name, async (trx) => {
    await deleteView(trx, user.id, id);
    return viewsOf(trx, user.id);
  });
}
