import type { Cohort } from '@sombra/contract';
import { InvalidInputError, NotFoundError } from '@sombra/core';
import type { Db } from '../platform/db';
import { findSpotOfTree } from '../spots/repository';
import { cohortOf } from './cohort-repository';

/** @throws NotFoundError for a tree that is none, InvalidInputError for one that is not planted, or is gone */
export async function cohortOfTree(db: Db, treeId: string): Promise<Cohort> {
  const spot = await findSpotOfTree(db, treeId);
  if (!spot) throw new NotFoundError('no such tree', 'id');
  const cohort = spot.treeId === treeId ? await cohortOf(db, spot.id) : null;
  if (cohort) return cohort;
  throw new InvalidInputError('the tree must be planted', 'id', { title: 'This tree is not recorded as planted' });
}
