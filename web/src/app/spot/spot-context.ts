import { spotDetailSchema, type SpotDetail } from '@sombra/contract';
import { spotLife, type FieldRecord, type SpotContext, type SpotLife } from '@sombra/core';

/** The schema checks the shape; records and practice keep the core's types. */
export const readSpotDetail = (body: unknown): SpotDetail => spotDetailSchema.parse(body);

/** What the programme brings to a spot, as the server sent it along. */
const contextOf = ({ practice, plantedUnder, windows, latDeg, plantOn, offers }: SpotDetail): SpotContext => ({
  practice,
  plantedUnder: plantedUnder ?? undefined,
  windows,
  latDeg: latDeg ?? undefined,
  plantOn,
  offers,
});

/** Where a spot stands by these of its records, worked out here by the core as the server does. */
export const lifeOf = (detail: SpotDetail, records: readonly object[] = detail.records): SpotLife =>
  spotLife(records as readonly FieldRecord[], contextOf(detail));
