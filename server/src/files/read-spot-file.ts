import {
  importLimits,
  problemIssues,
  requiredColumns,
  rowFacts,
  spotColumns,
  spotRowSchema,
  columnMeasures,
  type RowFacts,
  type RowIssue,
  type SpotRow,
} from '@sombra/contract';
import { InvalidInputError, limits } from '@sombra/core';
import { z } from 'zod';
import { readCsv } from '../platform/csv';
import { parseJsonFile } from '../platform/json-file';

export interface GoodRow {
  readonly row: number;
  readonly cells: SpotRow;
  readonly facts: RowFacts;
}

export interface ReadFile {
  readonly good: readonly GoodRow[];
  readonly issues: readonly RowIssue[];
  readonly ignoredColumns: readonly string[];
  /** Rows that hold an issue, by row number, with the ref they claim. */
  readonly bad: ReadonlyMap<number, string>;
}

interface RawRow {
  readonly row: number;
  readonly cells: Readonly<Record<string, unknown>>;
}

/**
 * Reads spots from CSV or GeoJSON bytes. Row faults are gathered; a file that cannot be read at all is refused.
 * @throws InvalidInputError for wrong encoding, missing columns, no rows, too many rows, or broken GeoJSON.
 */
export function readSpotFile(bytes: Uint8Array, fileName: string): ReadFile {
  const text = decode(bytes);
  const { rows, columns } = /^\s*\{/.test(text) ? readGeoJson(text) : readTable(text);
  const missing = requiredColumns.filter((column) => !columns.has(column));
  if (missing.length > 0) {
    refuse(
      `the column${missing.length > 1 ? 's' : ''} ${missing.join(', ')} ${missing.length > 1 ? 'are' : 'is'} missing from ${fileName}; the first row must name the columns`,
    );
  }
  if (rows.length === 0) refuse(`${fileName} holds no rows below its header`);
  if (rows.length > importLimits.rows) {
    refuse(`${fileName} holds ${rows.length} rows; the limit is ${importLimits.rows}. Split it and import the parts`);
  }
  const known: ReadonlySet<string> = new Set(spotColumns);
  return { ...checkRows(rows), ignoredColumns: [...columns].filter((column) => column !== '' && !known.has(column)) };
}

function refuse(message: string): never {
  throw new InvalidInputError(message, 'file', { title: message.charAt(0).toUpperCase() + message.slice(1) });
}

function decode(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    const line = firstBadLine(bytes);
    return refuse(
      `the file is not UTF-8: line ${line} holds bytes that are no text in it. Save it again as "CSV UTF-8"`,
    );
  }
}

function firstBadLine(bytes: Uint8Array): number {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  let start = 0;
  for (let line = 1; start <= bytes.length; line++) {
    const end = bytes.indexOf(10, start);
    try {
      decoder.decode(bytes.subarray(start, end === -1 ? bytes.length : end));
    } catch {
      return line;
    }
    if (end === -1) return line;
    start = end + 1;
  }
  return 1;
}

function readTable(text: string): { rows: RawRow[]; columns: Set<string> } {
  const { rows, columns } = readCsv(text, importLimits);
  return { rows: rows.map((cells, i) => ({ row: i + 2, cells })), columns: new Set(columns) };
}

const geoJsonSchema = z.object({
  type: z.literal('FeatureCollection'),
  features: z.array(
    z.object({
      type: z.literal('Feature'),
      geometry: z.unknown(),
      properties: z.record(z.string(), z.unknown()).nullable(),
    }),
  ),
});

const pointSchema = z.object({
  type: z.literal('Point'),
  coordinates: z.tuple([z.unknown(), z.unknown()]).rest(z.unknown()),
});

function readGeoJson(text: string): { rows: RawRow[]; columns: Set<string> } {
  const json = parseJsonFile(text, 'the file starts like GeoJSON but is not valid JSON');
  const parsed = geoJsonSchema.safeParse(json);
  if (!parsed.success) return refuse('the file is not a GeoJSON FeatureCollection of features');
  const columns = new Set<string>(['lng', 'lat']);
  const rows = parsed.data.features.map((feature, i) => {
    const point = pointSchema.safeParse(feature.geometry);
    const [lng, lat] = point.success ? point.data.coordinates : ['not a Point', 'not a Point'];
    const properties = feature.properties ?? {};
    for (const key of Object.keys(properties)) columns.add(key);
    return { row: i + 1, cells: { ...properties, lng, lat } };
  });
  return { rows, columns };
}

function checkRows(rows: readonly RawRow[]): Pick<ReadFile, 'good' | 'issues' | 'bad'> {
  const good: GoodRow[] = [];
  const issues: RowIssue[] = [];
  const bad = new Map<number, string>();
  const firstRowOf = new Map<string, number>();
  for (const { row, cells } of rows) {
    const found = checkRow(row, cells);
    if (!Array.isArray(found)) {
      const earlier = firstRowOf.get(found.cells.ref);
      if (earlier === undefined) {
        firstRowOf.set(found.cells.ref, row);
        good.push(found);
        continue;
      }
      issues.push({ row, column: 'ref', message: `repeats row ${earlier}`, received: found.cells.ref });
    } else issues.push(...found);
    bad.set(row, shown(cells['ref']) ?? '');
  }
  return { good, issues, bad };
}

function checkRow(row: number, raw: Readonly<Record<string, unknown>>): GoodRow | RowIssue[] {
  const parsed = spotRowSchema.safeParse(raw, { reportInput: true });
  if (!parsed.success) {
    return problemIssues(parsed.error).map(({ path, message }) => {
      const column = path.split('.')[0] ?? path;
      return { row, column, message: withLimits(column, message), received: shown(raw[column]) };
    });
  }
  const facts = rowFacts(parsed.data);
  if (facts.ok) return { row, cells: parsed.data, facts: facts.facts };
  return [{ row, column: facts.column, message: facts.message, received: shown(raw[facts.column]) }];
}

/** Range messages of a cell name the limits of the measure behind its column. */
function withLimits(column: string, message: string): string {
  const name = columnMeasures[column as keyof SpotRow];
  if (!name || !/^Too (big|small)/.test(message)) return message;
  const { min, max, unit } = limits[name];
  return `must be within ${min}–${max} ${unit}`;
}

function shown(value: unknown): string | undefined {
  if (value === undefined || value === null || typeof value === 'object') return undefined;
  const text = String(value);
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
}
