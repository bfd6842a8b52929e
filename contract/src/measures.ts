import { limits, type Measure } from '@sombra/core';
import * as z from 'zod';

/** A number within the core's limits for this measure. */
export function measure(name: Measure) {
  const { min, max, unit } = limits[name];
  const message = `must be within ${min}–${max} ${unit}`.trim();
  return z.number().min(min, message).max(max, message);
}

/** The version of a row, as far as the database counts. */
export const rowVersion = z.int().max(2_147_483_647);

export const isoDate = z.iso.date();
export const instant = z.iso.datetime({ offset: true });
/** Ids are made by the device that makes the thing. */
export const recordId = z.uuidv7();
export const entityId = z.uuid();

/** [longitude, latitude] in degrees. */
export const positionSchema = z.tuple([measure('lng'), measure('lat')]);

/** Words somebody types, and words that must be there. */
export const shortText = (max: number) => z.string().trim().max(max, `must be at most ${max} characters`);
export const filledText = (max: number) => shortText(max).min(1, 'must not be empty');
