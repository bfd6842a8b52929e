import {
  offerColumns,
  readOfferCells,
  readSpeciesCells,
  speciesCells,
  speciesColumns,
  type Offers,
  type RowReport,
  type SaveSpecies,
  type User,
} from '@sombra/contract';
import { ConflictError, requireSpecies, type Species } from '@sombra/core';
import type { Knex } from 'knex';
import { isDeepStrictEqual } from 'node:util';
import { v7 as uuidv7 } from 'uuid';
import type { NurseryService } from '../adapters/nursery';
import { csvTable } from '../platform/csv';
import { readRows, refuseDuplicates } from '../platform/csv-rows';
import { asActor } from '../platform/db';
import { allOffers, findSpecies, keepSpecies, replaceOffers, speciesLibrary, type NewOffer } from './repository';
import { programmeToday } from '../programme/today';
import { markSpeciesDue } from '../record/water-repository';

/** Keeps a species, new or changed. @throws ConflictError where it was changed or made by somebody else first */
export async function saveSpecies(db: Knex, user: User, { species, version }: SaveSpecies): Promise<void> {
  requireSpecies(species);
  await asActor(db, user.name, async (trx) => {
    const kept = await findSpecies(trx, species.botanical);
    const fits = (kept?.version ?? 0) === version;
    if (fits && (await keepSpecies(trx, species, version + 1, user.name))) {
      await markSpeciesDue(trx, species.botanical);
      return;
    }
    const now = fits ? await findSpecies(trx, species.botanical) : kept;
    throw new ConflictError(`species is at version ${now?.version ?? 0}, got ${version}`, 'version', {
      title: now ? 'Someone changed this species first; yours was not stored' : 'This species is not in the library',
      current: now,
    });
  });
}

export async function speciesCsv(db: Knex): Promise<string> {
  const library = (await speciesLibrary(db)).map((species) => speciesCells(species));
  return csvTable(
    speciesColumns,
    library.map((cells) => speciesColumns.map((column) => cells[column])),
  );
}

/** Takes species out of a file: new ones are added, known ones changed; one transaction, bad rows named and left. */
export async function importSpecies(db: Knex, user: User, bytes: Uint8Array): Promise<RowReport> {
  const read = refuseDuplicates(
    readRows<Species>(bytes, ['botanical'], readSpeciesCells),
    'botanical',
    ({ botanical }) => botanical,
  );
  return asActor(db, user.name, async (trx) => {
    let [written, same] = [0, 0];
    for (const { value } of read.good) {
      const kept = await findSpecies(trx, value.botanical);
      if (kept && isDeepStrictEqual(kept.species, value)) same += 1;
      else {
        await keepSpecies(trx, value, (kept?.version ?? 0) + 1, user.name);
        await markSpeciesDue(trx, value.botanical);
        written += 1;
      }
    }
    return { written, same, issues: [...read.issues].sort((a, b) => a.row - b.row) };
  });
}

/**
 * Takes a nursery's availability list in the place of its last one. A list with a row that cannot be read, or with
 * the same tree twice, is refused whole: half a list would look like a nursery that sold out.
 */
export async function importOffers(db: Knex, user: User, nursery: string, bytes: Uint8Array): Promise<RowReport> {
  const required = offerColumns.filter((column) => column !== 'height_m');
  const read = refuseDuplicates(
    readRows(bytes, required, readOfferCells),
    'species',
    (row) => `${row.species}/${row.stock_kind}/${row.caliper_mm}`,
  );
  const issues = [...read.issues].sort((a, b) => a.row - b.row);
  if (issues.length > 0) return { written: 0, same: 0, issues };
  const offers = read.good.map(({ value }): NewOffer => ({
    id: uuidv7(),
    species: value.species,
    stockKind: value.stock_kind,
    caliperMm: value.caliper_mm,
    heightM: value.height_m,
    price: value.price,
    available: value.available,
  }));
  const listDay = await programmeToday(db);
  await asActor(db, user.name, (trx) => replaceOffers(trx, { id: uuidv7(), name: nursery, listDay }, offers));
  return { written: offers.length, same: 0, issues };
}

/** Asks the nursery service for every list it has. @throws ConflictError where it cannot be reached */
export async function readNurseries(db: Knex, user: User, service: NurseryService | null): Promise<Offers> {
  const lists = service ? await service.lists() : null;
  if (!lists) {
    throw new ConflictError('the nursery service does not answer', 'nursery', {
      title: 'The nursery service does not answer; the lists you have are unchanged',
    });
  }
  for (const { nursery, csv } of lists) {
    const { issues } = await importOffers(db, user, nursery, csv);
    const first = issues[0];
    if (first) {
      throw new ConflictError(`list of ${nursery}, row ${first.row}, ${first.column}: ${first.message}`, 'nursery', {
        title: `The list of ${nursery} cannot be read: row ${first.row}, ${first.column} ${first.message}`,
      });
    }
  }
  return allOffers(db);
}
