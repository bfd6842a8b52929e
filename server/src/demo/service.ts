import { baseLayers } from '@sombra/contract';
import { fieldDefault } from '@sombra/core';
import { demoPeople, type DemoSpot, type DemoTown } from '@sombra/demo';
import { v5 as uuidv5 } from 'uuid';
import { insertSpots, placeIds } from '../spots/repository';
import { replaceOffers } from '../match/repository';
import { replaceLayer } from '../map/repository';
import { insertUser } from '../people/repository';
import { hashPassword } from '../people/service';
import type { Db } from '../platform/db';
import { insertProgramme } from '../programme/repository';
import { insertPractice } from '../practice/repository';
import { deriveAndKeep } from '../record/derive';
import { insertRecords } from '../record/repository';
import { insertWeather } from '../season/repository';
import { insertView } from '../views/repository';
import { keepZone } from '../water/devices-repository';
import { keepFill, keepTruck } from '../water/rounds-repository';
import { insertCare, insertDay, insertDelivery, insertRound, insertTicket, insertTools } from './repository';

const namespace = '7c1f5a6e-3d0b-5e4f-9a51-2f6f3b0c8d11';
const chunk = 250;
const maker = 'Demo town';

/** Fills an empty database with the demo town, in one transaction. */
export async function loadTown(trx: Db, town: DemoTown): Promise<void> {
  await loadProgramme(trx, town);
  for (const person of demoPeople) {
    const passwordHash = await hashPassword(person.password);
    const { signIn, name, role, units } = person;
    await insertUser(trx, { id: userId(signIn), signIn, name, role, units, passwordHash });
  }
  for (let at = 0; at < town.spots.length; at += chunk) await loadSpots(trx, town.spots.slice(at, at + chunk));
  await insertWeather(trx, town.weather.recorded, 'recorded');
  await insertWeather(trx, town.weather.forecast, 'forecast');
  await loadBase(trx, town);
  for (const { name, terms, offers } of town.nurseries) {
    const nursery = {
      id: uuidv5(name, namespace),
      name,
      terms,
      listDay: town.weather.recorded.at(-1)?.day ?? '2026-01-01',
    };
    await replaceOffers(
      trx,
      nursery,
      offers.map((offer, i) => ({ ...offer, id: uuidv5(`${name}/${i}`, namespace) })),
    );
  }
  for (const delivery of town.deliveries) await insertDelivery(trx, delivery, town.nurseries);
  for (const day of town.days) await insertDay(trx, day);
  await insertTools(trx);
  for (const truck of town.fleet.trucks)
    await keepTruck(trx, { ...truck, depot: [...truck.depot], retired: false, version: 0 });
  for (const fill of town.fleet.fills)
    await keepFill(trx, { ...fill, position: [...fill.position], retired: false, version: 0 });
  for (const zone of town.zones) await keepZone(trx, { ...structuredClone(zone), retired: false, version: 0 });
  for (const keeper of town.keepers) await insertCare(trx, keeper);
  for (const ticket of town.tickets) await insertTicket(trx, ticket);
  for (const round of town.rounds) await insertRound(trx, round);
  for (const { signIn, name, path, query } of town.views) {
    await insertView(trx, userId(signIn), { id: uuidv5(`${signIn}/${name}`, namespace), name, path, query });
  }
}

const userId = (signIn: string): string => uuidv5(signIn, namespace);

async function loadProgramme(trx: Db, town: DemoTown): Promise<void> {
  const { id, version } = fieldDefault;
  await insertPractice(trx, fieldDefault, 'Sombra');
  const { latDeg, elevationM } = town.station;
  const settings = { name: town.programme, timeZone: town.timeZone, latDeg, lngDeg: town.lng, elevationM };
  await insertProgramme(trx, { ...settings, units: 'metric', windows: [...town.windows], demo: true }, { id, version });
}

async function loadSpots(trx: Db, spots: readonly DemoSpot[]): Promise<void> {
  const places = await placeIds(
    trx,
    spots.map((spot) => spot.place),
    () => crypto.randomUUID(),
  );
  await insertSpots(
    trx,
    spots.map((spot) => ({ ...spot, placeId: places.get(spot.place) ?? '' })),
    maker,
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

async function loadBase(trx: Db, { base }: DemoTown): Promise<void> {
  for (const layer of baseLayers) {
    const features = base[layer].map(({ properties, geometry }) => ({
      name: properties.name ?? null,
      heightM: properties.height_m ?? null,
      geometry: JSON.stringify(geometry),
    }));
    await replaceLayer(trx, layer, features, maker);
  }
}
