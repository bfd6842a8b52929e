import {
  deviceForms,
  deviceLooks,
  zonePlantKinds,
  type VesselRun,
  type WaterDevice,
  type WaterSubject,
  type ZoneProgramme,
} from '@sombra/core';
import * as z from 'zod';
import { entityId, filledText, instant, isoDate, measure, rowVersion, shortText } from './measures';
import { waterDeviceId } from './records';

const within = (min: number, max: number, unit: string) =>
  z.number().min(min, `must be within ${min}–${max} ${unit}`).max(max, `must be within ${min}–${max} ${unit}`);

const deviceFields = {
  id: waterDeviceId,
  name: filledText(60),
  form: z.enum(deviceForms),
  volumeL: measure('deviceL').nullable(),
  outlets: z.int().min(1, 'must be at least 1').max(200, 'must be at most 200'),
  inletMm: measure('inletMm').nullable(),
  fillMinutes: measure('deviceFillMinutes'),
  soakMinutes: measure('deviceSoakMinutes'),
  labelledLPerH: measure('labelledLPerH').nullable(),
  perCaliperMm: measure('perCaliperMm').nullable(),
  cost: within(0, 100_000, ''),
  upkeep: shortText(200),
  looks: z.enum(deviceLooks),
  clearStemMm: measure('clearStemMm').nullable(),
  mostSlopePct: measure('slopePct').nullable(),
  dug: z.boolean(),
  offAfterMonths: within(1, 120, 'months').nullable(),
};
const deviceBody = z.strictObject(deviceFields) satisfies z.ZodType<WaterDevice>;
export { deviceBody as waterDeviceBody };

export const saveDeviceSchema = z.strictObject({ ...deviceFields, retired: z.boolean(), version: rowVersion });
export type SaveDevice = z.infer<typeof saveDeviceSchema>;

const runSchema = z.strictObject({
  litres: measure('vesselL'),
  minutes: within(0.1, 1440, 'min'),
}) satisfies z.ZodType<VesselRun>;

/** Runs of a device into a measured vessel. */
export const calibrateSchema = z.strictObject({
  id: entityId,
  measuredOn: isoDate,
  runs: z.array(runSchema).min(1, 'must hold one run at least').max(20, 'must hold 20 runs at most'),
  note: shortText(200).default(''),
});
export type CalibrateDevice = z.infer<typeof calibrateSchema>;

export const keptDeviceSchema = z.object({
  ...deviceFields,
  retired: z.boolean(),
  version: z.int(),
  /** The newest measurement; `null` where nobody ran it into a vessel. */
  measured: z
    .object({
      on: isoDate,
      lPerH: z.number(),
      spreadPct: z.number().nullable(),
      runs: z.int(),
      by: z.string(),
      note: z.string(),
    })
    .nullable(),
  /** Trees it stands at. */
  atTrees: z.int(),
});
export type KeptDevice = z.infer<typeof keptDeviceSchema>;
export const keptDevicesSchema = z.array(keptDeviceSchema);

const programme = z.strictObject({
  minutes: within(0, 720, 'min'),
  everyDays: z.int().min(1, 'must be at least 1 day').max(60, 'must be at most 60 days'),
  timesADay: z.int().min(1, 'must be at least 1').max(6, 'must be at most 6'),
}) satisfies z.ZodType<ZoneProgramme>;

export const zoneBodySchema = z.strictObject({
  emitterLPerH: measure('emitterLPerH'),
  plants: z
    .array(
      z.strictObject({
        kind: z.enum(zonePlantKinds),
        name: filledText(60),
        emitters: z.int().min(1, 'must be at least 1').max(5000, 'must be at most 5000'),
        areaM2: within(0, 20_000, 'm²'),
        /** Of a tree, where it stands. */
        spotId: entityId.nullable(),
      }),
    )
    .min(1, 'must hold one plant at least')
    .max(60, 'must hold 60 plants at most'),
  programme,
  turf: z.strictObject({ programme, until: isoDate }).nullable(),
});
export type ZoneBody = z.infer<typeof zoneBodySchema>;

export const saveZoneSchema = z.strictObject({
  id: entityId,
  name: filledText(60),
  body: zoneBodySchema,
  retired: z.boolean(),
  version: rowVersion,
});
export type SaveZone = z.infer<typeof saveZoneSchema>;

export const keptZoneSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  body: zoneBodySchema,
  retired: z.boolean(),
  version: z.int(),
  /** What the controller runs, as it was told last; `null` where none was told. */
  told: programme.nullable(),
  toldAt: instant.nullable(),
  problem: z.string().nullable(),
  heardUntil: instant.nullable(),
  /** Its last runs, newest first. */
  runs: z.array(z.object({ at: instant, minutes: z.number(), litres: z.number() })),
  /** What its trees go by, where they are followed. */
  trees: z.array(
    z.object({
      spotId: z.uuid(),
      treeId: z.uuid().nullable(),
      ref: z.string(),
      species: z.string().nullable(),
      subject: z.custom<WaterSubject>((value) => typeof value === 'object' && value !== null).nullable(),
      drowned: z.boolean(),
    }),
  ),
});
export type KeptZone = z.infer<typeof keptZoneSchema>;
export const keptZonesSchema = z.object({
  /** Whether a controller is there to be told. */
  controller: z.enum(['none', 'simulated', 'real']),
  zones: z.array(keptZoneSchema),
});
export type KeptZones = z.infer<typeof keptZonesSchema>;
