import { savedViewSchema, type SavedView } from '@sombra/contract';
import type { Db } from '../platform/db';
import { readStored } from '../platform/stored';

interface ViewRow {
  id: string;
  user_id: string;
  name: string;
  path: string;
  query: unknown;
  version: number;
}

const viewOf = ({ id, name, path, query, version }: ViewRow): SavedView => ({
  id,
  name,
  path,
  query: readStored(savedViewSchema.shape.query, query, `view ${id}`),
  version,
});

export async function viewsOf(db: Db, userId: string): Promise<SavedView[]> {
  return (await db<ViewRow>('saved_view').where({ user_id: userId }).orderBy('name')).map(viewOf);
}

export async function findView(db: Db, userId: string, id: string): Promise<SavedView | undefined> {
  const row = await db<ViewRow>('saved_view').where({ id, user_id: userId }).forUpdate().first();
  return row && viewOf(row);
}

export async function nameTaken(db: Db, userId: string, name: string, id: string): Promise<boolean> {
  return (await db<ViewRow>('saved_view').where({ user_id: userId, name }).whereNot({ id }).first('id')) !== undefined;
}

export async function insertView(db: Db, userId: string, view: Omit<SavedView, 'version'>): Promise<void> {
  const { id, name, path, query } = view;
  await db('saved_view')
    .insert({ id, user_id: userId, name, path, query: JSON.stringify(query) })
    .onConflict('id')
    .ignore();
}

export async function updateView(db: Db, view: SavedView): Promise<void> {
  const { id, name, path, query, version } = view;
  await db('saved_view')
    .where({ id })
    .update({ name, path, query: JSON.stringify(query), version });
}

export async function deleteView(db: Db, userId: string, id: string): Promise<void> {
  await db('saved_view').where({ id, user_id: userId }).delete();
}

/** Held to the end of the act by whoever keeps a view of this person. */
export async function lockViews(trx: Db, userId: string): Promise<void> {
  await trx('app_user').where({ id: userId }).forUpdate().first('id');
}
