import type { CalibrateDevice, KeptDevice, SaveDevice, User } from '@sombra/contract';
import { calibrate, deviceCatalogue, InvalidInputError, NotFoundError } from '@sombra/core';
import type { Knex } from 'knex';
import { asActor } from '../platform/db';
import { programmeToday } from '../programme/today';
import { announce } from '../record/repository';
import { devices, keepDevice, keepRuns, shipDevices } from './devices-repository';
import { changedFirst } from './version-repository';

/** The catalogue; what ships is laid in the first time it is asked for. */
export async function readDevices(db: Knex): Promise<KeptDevice[]> {
  const kept = await devices(db);
  if (deviceCatalogue.every(({ id }) => kept.some((one) => one.id === id))) return kept;
  await asActor(db, 'catalogue', (trx) => shipDevices(trx, deviceCatalogue));
  return devices(db);
}

/** @throws ConflictError where somebody else changed it first */
export async function saveDevice(db: Knex, user: User, device: SaveDevice): Promise<KeptDevice[]> {
  await readDevices(db);
  await asActor(db, user.name, async (trx) => {
    if (!(await keepDevice(trx, device))) {
      const title =
        device.version === 0
          ? 'A device with this short name is there already'
          : 'This device was changed by somebody else first';
      throw changedFirst(title);
    }
    await announce(trx, []);
  });
  return devices(db);
}

/** Keeps runs into a measured vessel: from then on the device runs by their mean. */
export async function calibrateDevice(
  db: Knex,
  user: User,
  deviceId: string,
  asked: CalibrateDevice,
): Promise<KeptDevice[]> {
  const known = await readDevices(db);
  if (!known.some(({ id }) => id === deviceId)) throw new NotFoundError('no such device', 'id');
  const today = await programmeToday(db);
  if (asked.measuredOn > today) {
    throw new InvalidInputError(`measuredOn must not be after ${today}, got ${asked.measuredOn}`, 'measuredOn');
  }
  const { lPerH, spreadPct } = calibrate(asked.runs);
  await asActor(db, user.name, async (trx) => {
    await keepRuns(trx, { ...asked, deviceId, lPerH, spreadPct, by: user.name });
    await announce(trx, []);
  });
  return devices(db);
}
