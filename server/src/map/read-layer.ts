import { mapLimits, type BaseLayer } from '@sombra/contract';
import { InvalidInputError } from '@sombra/core';
import { z } from 'zod';
import { parseJsonFile } from '../platform/json-file';
import type { NewFeature } from './repository';

const shapesOf: Readonly<Record<BaseLayer, readonly string[]>> = {
  water: ['Polygon', 'MultiPolygon'],
  park: ['Polygon', 'MultiPolygon'],
  building: ['Polygon', 'MultiPolygon'],
  contour: ['LineString', 'MultiLineString'],
  street: ['LineString', 'MultiLineString'],
  tram: ['LineString', 'MultiLineString'],
  wire: ['LineString', 'MultiLineString'],
  kerb: ['LineString', 'MultiLineString'],
  driveway: ['Polygon', 'MultiPolygon', 'LineString', 'MultiLineString'],
  hydrant: ['Point', 'MultiPoint'],
  lamp: ['Point', 'MultiPoint'],
  sign: ['Point', 'MultiPoint'],
};

const collectionSchema = z.object({ type: z.literal('FeatureCollection'), features: z.array(z.unknown()) });
const featureSchema = z.object({
  type: z.literal('Feature'),
  properties: z
    .object({ name: z.string().max(120).nullish(), height_m: z.number().min(-500).max(9000).nullish() })
    .nullish(),
  geometry: z.object({ type: z.string(), coordinates: z.array(z.unknown()).min(1) }),
});

/**
 * The features of one layer of the base map out of a GeoJSON file (RFC 7946, degrees).
 * @throws InvalidInputError naming the first feature that does not fit and why
 */
export function readLayer(bytes: Uint8Array, layer: BaseLayer): NewFeature[] {
  const parsed = collectionSchema.safeParse(readJson(bytes));
  if (!parsed.success)
    throw refuse('file must be a GeoJSON FeatureCollection', 'The file is not a GeoJSON FeatureCollection');
  const { features } = parsed.data;
  if (features.length > mapLimits.features) {
    const rule = `must hold ${mapLimits.features} features at most, got ${features.length}`;
    throw refuse(`file ${rule}`, `The file ${rule}`);
  }
  return features.map((feature, i) => readFeature(feature, i + 1, layer));
}

function readFeature(feature: unknown, number: number, layer: BaseLayer): NewFeature {
  const parsed = featureSchema.safeParse(feature);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    const where = issue?.path.join('.') ?? '';
    throw refuse(`feature ${number}: ${where}`, `Feature ${number}: ${where} ${issue?.message ?? ''}`);
  }
  const { geometry, properties } = parsed.data;
  if (!shapesOf[layer].includes(geometry.type)) {
    const rule = `must be ${shapesOf[layer].join(' or ')} in the layer ${layer}`;
    throw refuse(`feature ${number}: geometry ${rule}`, `Feature ${number}: its geometry ${rule}`);
  }
  const coordinates = flatDegrees(geometry.coordinates, number);
  return {
    name: properties?.name ?? null,
    heightM: properties?.height_m ?? null,
    geometry: JSON.stringify({ type: geometry.type, coordinates }),
  };
}

/** Positions as longitude and latitude; heights, which RFC 7946 allows as a third number, are left out. */
function flatDegrees(coordinates: readonly unknown[], number: number): unknown[] {
  const [lng, lat] = coordinates;
  if (typeof lng === 'number' && typeof lat === 'number') {
    if (Math.abs(lng) <= 180 && Math.abs(lat) <= 85) return [lng, lat];
    const rule = `must lie within ±180, ±85 degrees, got ${lng}, ${lat}`;
    throw refuse(`feature ${number}: coordinates ${rule}`, `Feature ${number}: its coordinates ${rule}`);
  }
  if (coordinates.length === 0 || !coordinates.every(Array.isArray)) {
    const rule = 'must be lists of longitude and latitude';
    throw refuse(`feature ${number}: coordinates ${rule}`, `Feature ${number}: its coordinates ${rule}`);
  }
  return coordinates.map((part) => flatDegrees(part as unknown[], number));
}

function readJson(bytes: Uint8Array): unknown {
  const broken = 'the file is not JSON in UTF-8';
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw refuse(`file: ${broken}`, 'The file is not JSON in UTF-8');
  }
  return parseJsonFile(text, broken);
}

const refuse = (message: string, title: string): InvalidInputError => new InvalidInputError(message, 'file', { title });
