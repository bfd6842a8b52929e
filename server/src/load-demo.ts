import { demoPeople, demoTown } from '@sombra/demo';
import { fieldDefault } from '@sombra/core';
import { v5 as uuidv5 } from 'uuid';
import { insertSpots, placeIds } from './ground/repository';
import { insertUser } from './people/repository';
import { hashPassword, programmeToday } from './people/service';
import { asActor, openDatabase, type Db } from './platform/db';
import { deriveAndKeep } from './record/derive';
import { insertRecords } from './record/repository';

const namespace = '7c1f5a6e-3d0b-5e4f-9a51-2f6f3b0c8d11';
const chunk = 200;

async function loadProgramme(trx: Db, town: ReturnType<typeof demoTown>): Promise<void> {
  const { id, version } = fieldDefault;
  await trx('practice')
    .insert({ id, version, body: JSON.stringify(fieldDefault) })
    .onConflict()
    .ignore();
  const programme = { name: town.programme, time_zone: town.timeZone, practice_id: id, practice_version: version };
  await trx('programme').insert(programme).onConflict().ignore();
}

async function loadTown(trx: Db, town: ReturnType<typeof demoTown>): Promise<void> {
  for (let at = 0; at < town.spots.length; at += chunk) {
    const spots = town.spots.slice(at, at + chunk);
    const places = await placeIds(
      trx,
      spots.map((spot) => spot.place),
      () => crypto.randomUUID(),
    );
    await insertSpots(
      trx,
      spots.map((spot) => ({ ...spot, placeId: places.get(spot.place) ?? '' })),
      'Demo town',
    );
    await insertRecords(
      trx,
      spots.flatMap((spot) =>
        spot.records.map(({ by, device, ...record }) => ({
          spotId: spot.id,
          treeId: spot.treeId,
          recordedBy: by,
          device,
          record,
        })),
      ),
    );
    await deriveAndKeep(
      trx,
      spots.map((spot) => spot.id),
    );
  }
}

/** Fills an empty database with the demo town; leaves a filled one alone. */
const url = process.env['DATABASE_URL'];
if (!url) throw new Error('DATABASE_URL is missing');
const db = openDatabase(url, { applicationName: 'sombra-demo' });
try {
  const filled = (await db('programme').first()) !== undefined;
  if (!filled) {
    const seed = process.env['DEMO_SEED'] ?? 'talhamar';
    await asActor(db, 'demo', async (trx) => {
      const today = process.env['DEMO_TODAY'] ?? (await programmeToday(db));
      const town = demoTown({ seed, today });
      await loadProgramme(trx, town);
      for (const person of demoPeople) {
        const passwordHash = await hashPassword(person.password);
        const { signIn, name, role, units } = person;
        await insertUser(trx, { id: uuidv5(signIn, namespace), signIn, name, role, units, passwordHash });
      }
      await loadTown(trx, town);
    });
  }
} finally {
  await db.destroy();
}
