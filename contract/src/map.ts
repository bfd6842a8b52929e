import * as z from 'zod';
import { isoDate, positionSchema } from './measures';
import { spotFilterSchema } from './spot-filter';

/**
 * Layers of the base map, painted in this order. `building`, `contour` and `wire` may carry `height_m`. What stands
 * by the street is there to be measured from: kerb lines, driveways, hydrants, lamp posts, signs.
 */
export const baseLayers = [
  'water',
  'park',
  'contour',
  'street',
  'kerb',
  'driveway',
  'building',
  'tram',
  'wire',
  'hydrant',
  'lamp',
  'sign',
] as const;
export type BaseLayer = (typeof baseLayers)[number];
export const baseLayerSchema = z.enum(baseLayers);

export const mapLimits = { layerBytes: 48 * 1024 * 1024, features: 200_000, pmtilesBytes: 512 * 1024 * 1024 } as const;

const coordinate = z.coerce.number().int().min(0);
export const tilePathSchema = z
  .object({ z: coordinate.max(22), x: coordinate, y: coordinate })
  .refine(({ z: zoom, x, y }) => x < 2 ** zoom && y < 2 ** zoom, { error: 'must be a tile of its zoom', path: ['x'] });
export type TilePath = z.infer<typeof tilePathSchema>;

export const spotTileQuerySchema = spotFilterSchema.extend({ stamp: z.string().max(40).optional() });

/** Up to this zoom spots are counted by area, from the next on each has its mark. */
export const countUpToZoom = 14;

export const mapSchema = z.object({
  layers: z.array(z.object({ layer: baseLayerSchema, features: z.int(), changedAt: z.string() })),
  pmtiles: z.object({ fileName: z.string(), bytes: z.int() }).nullable(),
  /** Where the programme is, for a map with nothing on it yet. */
  centre: z.tuple([z.number(), z.number()]),
  /** Where the spots are: west, south, east, north; `null` while there is none. */
  bounds: z.tuple([z.number(), z.number(), z.number(), z.number()]).nullable(),
  /** Changes whenever a base layer does: part of the address of its tiles. */
  stamp: z.string(),
});
export type MapInfo = z.infer<typeof mapSchema>;

/** Booked things with a place, on a day. */
export const bookedSchema = z.object({
  days: z.array(z.object({ id: z.uuid(), title: z.string(), onDay: isoDate, spots: z.array(positionSchema) })),
  tickets: z.array(
    z.object({
      id: z.uuid(),
      number: z.string(),
      validFrom: isoDate,
      validUntil: isoDate,
      area: z.array(z.array(positionSchema)),
    }),
  ),
  /** Ground on either side of a mark that is opened by hand. */
  zones: z.array(z.object({ utility: z.string(), toleranceMm: z.number(), rings: z.array(z.array(positionSchema)) })),
});
export type Booked = z.infer<typeof bookedSchema>;

/** West, south, east, north of some spots; `null` where there are none. */
export const extentSchema = z.object({ bounds: z.tuple([z.number(), z.number(), z.number(), z.number()]).nullable() });
export type Extent = z.infer<typeof extentSchema>;
