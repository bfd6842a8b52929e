import type { Cohort } from '@sombra/contract';
import { InvalidInputError, NotFoundError } from '@sombra/core';
import type { Db } from '../platform/db';
import { placeOfTree } from '../spots/repository';
import { cohortOf } from './cohort-repository';

/** @throws NotFoundError for a tree that is none, InvalidInputError for one that is not planted, or is gone */
export async function cohortOfTree(db: Db, treeId: string): Promise<Cohort> {
  const place = await placeOfTree(db, treeId);
  if (!place) throw new NotFoundError('no such tree', 'id');
  const cohort = place.standing ? await cohortOf(db, place.spotId) : null;
  if (cohort) return cohort;
  throw new InvalidInputError('the tree must be planted', 'id', { title: 'This tree is not recorded as planted' });
}
