import type { KeptZone, ZoneBody } from '@sombra/contract';
import { tryZone, type ClimateDay, type DripZone, type IsoDate, type WaterSubject } from '@sombra/core';

/** A zone as it is tried: trees with what is known of them; one that is not followed yet is left out. */
export function zoneOf({ body, trees }: Pick<KeptZone, 'trees'> & { readonly body: ZoneBody }): DripZone {
  const subjects = new Map(trees.map(({ spotId, subject }) => [spotId, subject]));
  const known: readonly WaterSubject[] = trees.flatMap(({ subject }) => (subject ? [subject] : []));
  const [ground] = known;
  return {
    emitterLPerH: body.emitterLPerH,
    plants: body.plants.flatMap(({ spotId, ...plant }) => {
      if (plant.kind !== 'tree') return [plant];
      const subject = spotId === null ? null : subjects.get(spotId);
      return subject ? [{ ...plant, subject }] : [];
    }),
    // Shrubs and turf grow in the ground of the trees beside them.
    soil: ground?.soil ?? null,
    percolation: ground?.percolation ?? null,
    programme: body.programme,
    turf: body.turf,
  };
}

/** The first tree that would stand in water under a zone's programme, and since when; `null` where none would. */
export function drownsInTrial(
  zone: DripZone,
  climate: readonly ClimateDay[],
): { readonly name: string; readonly day: IsoDate } | null {
  if (climate.length === 0) return null;
  const trees = { ...zone, turf: null, plants: zone.plants.filter(({ kind }) => kind === 'tree') };
  const drowned = tryZone(trees, climate).flatMap(({ plant, drowns, drownsFrom }) =>
    !drowns || drownsFrom === null ? [] : [{ name: plant.name, day: drownsFrom }],
  );
  return drowned.sort((a, b) => a.day.localeCompare(b.day))[0] ?? null;
}
