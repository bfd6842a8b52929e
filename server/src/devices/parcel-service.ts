import { newLotTreeSchema, photoPlaceSchema, photoStepSchema, type User } from '@sombra/contract';
import { InvalidInputError } from '@sombra/core';
import type { Knex } from 'knex';
import { addPhoto } from '../ground/leave-service';
import { parse } from '../platform/problems';
import { requireMay } from '../platform/sessions';
import { addTreePhoto, openTree } from '../stock/service';

/** What goes to one of the doors below, from a seal or in parts. */
export interface Parcel {
  readonly method: 'POST' | 'PUT';
  readonly url: string;
  readonly json?: unknown;
  /** Empty where it is none. */
  readonly picture: Uint8Array;
}

/** Where and for whom a parcel is taken in. */
export interface ParcelTaking {
  readonly author: User;
  readonly storageFolder: string;
  readonly deviceNow: string | null;
}

interface ParcelDoor {
  readonly method: Parcel['method'];
  readonly path: RegExp;
  readonly take: (db: Knex, parcel: Parcel, ids: readonly string[], at: ParcelTaking) => Promise<unknown>;
}

const queryOf = ({ url }: Parcel): object => Object.fromEntries(new URL(url, 'http://x').searchParams);
const id = '([0-9a-f-]{36})';

/** The doors a sealed parcel may go to, each with what it asks of its author as it would of a visitor. */
const parcelDoors: readonly ParcelDoor[] = [
  {
    method: 'PUT',
    path: new RegExp(`^/api/spots/${id}/photos/${id}$`),
    take: (db, parcel, [spotId = '', photoId = ''], { author, storageFolder }) => {
      requireMay(author, 'add_photo');
      const { step } = parse(photoStepSchema, queryOf(parcel));
      return addPhoto(db, author, { id: photoId, spotId, step }, { folder: storageFolder, bytes: parcel.picture });
    },
  },
  {
    method: 'POST',
    path: new RegExp(`^/api/lots/${id}/trees$`),
    take: (db, parcel, [lotId = ''], { author, deviceNow }) => {
      requireMay(author, 'receive_stock');
      return openTree(db, author, lotId, parse(newLotTreeSchema, parcel.json), deviceNow);
    },
  },
  {
    method: 'PUT',
    path: new RegExp(`^/api/lot-trees/${id}/photo$`),
    take: (db, parcel, [treeId = ''], { author, storageFolder }) => {
      requireMay(author, 'receive_stock');
      const { lng = null, lat = null } = parse(photoPlaceSchema, queryOf(parcel));
      const place = lng === null || lat === null ? { lng: null, lat: null } : { lng, lat };
      return addTreePhoto(db, author, treeId, { folder: storageFolder, bytes: parcel.picture, ...place });
    },
  },
];

/** @throws InvalidInputError for a door that takes no parcels, and whatever its door refuses */
export async function takeParcel(db: Knex, parcel: Parcel, at: ParcelTaking): Promise<void> {
  const [path = ''] = parcel.url.split('?');
  for (const door of parcelDoors) {
    const ids = door.method === parcel.method ? door.path.exec(path) : null;
    if (ids) return void (await door.take(db, parcel, ids.slice(1), at));
  }
  throw new InvalidInputError('url leads to no door that takes parcels', 'url');
}
