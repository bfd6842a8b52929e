import type { Db } from '../platform/db';

/** What an import did to the rows of its file. */
export interface Counts {
  readonly written: number;
  readonly same: number;
  readonly bad: number;
}

/** What an import did that was done before; `undefined` for one that was not. */
export async function findImport(db: Db, id: string): Promise<Counts | undefined> {
  return db('import_act').where({ id }).first<Counts | undefined>('written', 'same', 'bad');
}

export async function insertImport(
  db: Db,
  { id, fileName, by }: { readonly id: string; readonly fileName: string; readonly by: string },
  counts: Counts,
): Promise<void> {
  await db('import_act').insert({ id, file_name: fileName, by, ...counts });
}
