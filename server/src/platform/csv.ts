import { InvalidInputError } from '@sombra/core';
import Papa from 'papaparse';

/** A spreadsheet runs what begins like this as a formula, a plain number apart. */
const formula = /^'*[=+\-@\t\r]/;
const plainNumber = /^-?\d+(\.\d+)?$/;
const guarded = /^'+[=+\-@\t\r]/;

/** A cell no spreadsheet runs: an apostrophe before it, as many more as it begins with, so that it reads back the same. */
function guard(cell: unknown): unknown {
  return typeof cell === 'string' && formula.test(cell) && !plainNumber.test(cell) ? `'${cell}` : cell;
}
const unguard = (cell: string): string => (guarded.test(cell) ? cell.slice(1) : cell);

/** One row, RFC 4180, with its line end. */
export const csvRow = (cells: readonly unknown[]): string =>
  `${Papa.unparse([cells.map(guard)], { newline: '\r\n' })}\r\n`;

/** A whole table with its header. */
export const csvTable = (columns: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  [columns, ...rows].map(csvRow).join('');

export interface CsvRows {
  readonly rows: readonly Readonly<Record<string, string>>[];
  readonly columns: readonly string[];
}

const mostColumns = 300;
const mostCell = 300_000;

/**
 * Rows by the header, whose names are trimmed and small. Empty rows are passed over; the delimiter is found.
 * @throws InvalidInputError, path `file`, before anything is parsed: for bytes that are not UTF-8, a quoted cell that is
 *   not closed, and for more rows, columns or longer cells than anybody's file has
 */
export function readCsv(text: string, limits: { readonly rows: number }): CsvRows {
  const { data: first, meta } = Papa.parse<string[]>(text.slice(0, 20_000), { preview: 5 });
  const { delimiter } = meta;
  requireLimits(text, delimiter, limits.rows);
  requireOnce(first[0] ?? []);
  const parsed = Papa.parse<Record<string, string>>(text, {
    header: true,
    delimiter,
    skipEmptyLines: 'greedy',
    transformHeader: (header, index) => nameOf(header) || `column ${index + 1}`,
    transform: unguard,
  });
  return { rows: parsed.data, columns: parsed.meta.fields ?? [] };
}

const nameOf = (header: string): string => header.trim().toLowerCase();

function requireOnce(header: readonly string[]): void {
  const names = header.map(nameOf).filter((name) => name !== '');
  const twice = names.find((name, i) => names.indexOf(name) < i);
  if (twice !== undefined) refuse(`the column ${twice.slice(0, 40)} stands twice in the first row`);
}

const [quote, lineFeed, carriageReturn] = [34, 10, 13];

/** One look at each character: what costs a parser seconds and gigabytes is refused by its row. */
function requireLimits(text: string, delimiter: string, mostRows: number): void {
  const separator = delimiter.charCodeAt(0);
  let [row, filled, columns, cellFrom] = [1, 0, 1, 0];
  const endCell = (at: number) => {
    if (at - cellFrom > mostCell) refuse(`a cell in row ${row} is longer than ${mostCell} characters`);
    if (at > cellFrom) filled = row;
    cellFrom = at + 1;
  };
  let rows = 0;
  for (let i = 0; i < text.length; i++) {
    let code = text.charCodeAt(i);
    if (code === quote && i === cellFrom) {
      i = endOfQuoted(text, i, row);
      code = text.charCodeAt(i);
      const ends = Number.isNaN(code) || code === separator || code === lineFeed || code === carriageReturn;
      if (!ends) refuse(`a quoted cell is not closed near row ${row}`);
    }
    if (code === separator) {
      endCell(i);
      columns += 1;
      if (columns > mostColumns) refuse(`row ${row} holds more than ${mostColumns} columns`);
    } else if (code === lineFeed || (code === carriageReturn && text.charCodeAt(i + 1) !== lineFeed)) {
      endCell(i);
      if (filled === row) rows += 1;
      row += 1;
      columns = 1;
    }
  }
  endCell(text.length);
  // The header is no row.
  const held = rows + Number(filled === row) - 1;
  if (held > mostRows) refuse(`the file holds ${held} rows; the limit is ${mostRows}. Split it and read the parts`);
}

/** The place after the quote that closes. */
function endOfQuoted(text: string, from: number, row: number): number {
  for (let at = from + 1; ; at += 2) {
    at = text.indexOf('"', at);
    if (at === -1 || at - from > mostCell) refuse(`a quoted cell is not closed near row ${row}`);
    if (text.charCodeAt(at + 1) !== quote) return at + 1;
  }
}

function refuse(rule: string): never {
  throw new InvalidInputError(`file: ${rule}`, 'file', { title: `${rule.charAt(0).toUpperCase()}${rule.slice(1)}` });
}
