import type { User } from '@sombra/contract';
import { InvalidInputError, NotFoundError, ofKind, remedyWords, spotLife, standing } from '@sombra/core';
import type { Knex } from 'knex';
import path from 'node:path';
import { keptFile, photosOf } from '../ground/leave-repository';
import { spotDetailOfTree } from '../ground/service';
import { smallPhoto } from '../platform/uploads';
import { findProgramme } from '../programme/repository';
import { programmeToday } from '../programme/today';
import { recordsOfSpots } from '../record/repository';
import { contextOf, programmeBasis } from '../record/spot-context';
import type { Referral } from './referral-pdf';

const mostPhotos = 4;
const photoPx = 900;

/**
 * What an arborist has to know of a tree.
 * @throws NotFoundError for a tree that is none, InvalidInputError for one that is not planted
 */
export async function referralOf(db: Knex, user: User, treeId: string, folder: string): Promise<Referral> {
  const { spot, tree } = await spotDetailOfTree(db, treeId);
  const [kept, programme, basis, today] = await Promise.all([
    recordsOfSpots(db, [spot.id]),
    findProgramme(db),
    programmeBasis(db),
    programmeToday(db),
  ]);
  const records = kept.get(spot.id) ?? [];
  if (!tree || !programme) throw new NotFoundError('no such tree', 'id');
  const life = spotLife(records, contextOf(basis, spot.id, records));
  const { planting } = life;
  if (!planting) {
    throw new InvalidInputError('the tree must be planted', 'id', { title: 'This tree is not recorded as planted' });
  }
  const by = new Map(records.map(({ id, recordedBy }) => [id, recordedBy]));
  return {
    programme: programme.name,
    ref: spot.ref,
    place: spot.place,
    species: tree.species,
    plantedOn: planting.record.facts.plantedOn,
    stock: life.stock,
    practice: life.care,
    looks: life.inspections
      .map(({ record, verdict }) => ({ facts: record.facts, verdict, by: by.get(record.id) ?? '' }))
      .reverse(),
    done: ofKind(standing(records), 'remedy')
      .map(({ facts: { remedy, doneOn } }) => ({ on: doneOn, act: remedyWords[remedy].act }))
      .reverse(),
    photos: await photosFor(db, spot.id, folder),
    askedBy: user.name,
    today,
    units: user.units,
  };
}

async function photosFor(db: Knex, spotId: string, folder: string): Promise<Referral['photos']> {
  const newest = (await photosOf(db, spotId)).slice(0, mostPhotos);
  const read = await Promise.all(
    newest.map(async ({ id, addedAt, step }) => {
      const file = await keptFile(db, 'spot_photo', id);
      const bytes = file && (await smallPhoto(path.resolve(folder, file.storedAs), photoPx));
      return bytes ? { bytes, said: [addedAt.slice(0, 10), step].filter(Boolean).join(', ') } : null;
    }),
  );
  // One that is missing from the storage is left out; its record is kept.
  return read.filter((photo) => photo !== null);
}
