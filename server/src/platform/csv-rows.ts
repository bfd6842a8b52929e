import type { RowRead, RowReport } from '@sombra/contract';
import { InvalidInputError } from '@sombra/core';
import express, { type Request } from 'express';
import { readCsv, type CsvRows } from './csv';

const mostRows = 5000;

/** Takes a file of rows as it is sent. */
export const csvFile = express.raw({ type: () => true, limit: '4mb' });
export const bytesOf = ({ body }: Request): Uint8Array => (Buffer.isBuffer(body) ? body : new Uint8Array());

export interface RowsRead<T> {
  readonly good: readonly { readonly row: number; readonly value: T }[];
  readonly issues: RowReport['issues'];
}

/** @throws InvalidInputError, path `file`, for bytes that are not UTF-8 */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).trim();
  } catch {
    throw new InvalidInputError('file must be CSV in UTF-8', 'file', { title: 'The file is not CSV in UTF-8' });
  }
}

/** A CSV by its header. @throws InvalidInputError, path `file`, for what is no CSV in UTF-8, or too much of it */
export const openCsv = (bytes: Uint8Array): CsvRows => readCsv(textOf(bytes), { rows: mostRows });

type Cells = Readonly<Partial<Record<string, string>>>;

/** Reads a CSV whose header has to name some columns. */
export function readRows<T>(
  bytes: Uint8Array,
  columns: readonly string[],
  read: (cells: Cells) => RowRead<T>,
): RowsRead<T> {
  const { rows, columns: found } = openCsv(bytes);
  const missing = columns.filter((column) => !found.includes(column));
  if (missing.length > 0) {
    throw new InvalidInputError(`the columns ${missing.join(', ')} are missing`, 'file', {
      title: `The file lacks the column${missing.length > 1 ? 's' : ''} ${missing.join(', ')}; its first row must name the columns`,
    });
  }
  return readEach(rows, read);
}

/** Faults are told by row and column; rows are counted as a spreadsheet does. */
export function readEach<T>(rows: CsvRows['rows'], read: (cells: Cells, row: number) => RowRead<T>): RowsRead<T> {
  const good: { row: number; value: T }[] = [];
  const issues: RowReport['issues'] = [];
  rows.forEach((cells, i) => {
    const row = i + 2;
    const result = read(cells, row);
    if (result.ok) good.push({ row, value: result.value });
    else issues.push(...result.faults.map((fault) => ({ row, ...fault })));
  });
  return { good, issues };
}

/** Rows that say the same thing twice: the first stands, each later one is named. */
export function refuseDuplicates<T>(read: RowsRead<T>, column: string, keyOf: (value: T) => string): RowsRead<T> {
  const first = new Map<string, number>();
  const good: { row: number; value: T }[] = [];
  const issues = [...read.issues];
  for (const { row, value } of read.good) {
    const before = first.get(keyOf(value));
    if (before === undefined) {
      first.set(keyOf(value), row);
      good.push({ row, value });
    } else issues.push({ row, column, message: `says again what row ${before} says; one of the two has to go` });
  }
  return { good, issues };
}
