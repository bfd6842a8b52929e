import { isoDate, type InvoiceReport } from '@sombra/contract';
import { addDaysTo, checkInvoice, limits, type InvoiceLine, type IsoDate } from '@sombra/core';
import type { Knex } from 'knex';
import { readRows } from '../platform/csv-rows';
import { provenWaterings } from './repository';

const { min, max } = limits.wateringL;

function lineOf(cells: Readonly<Partial<Record<string, string>>>) {
  const [ref = '', day = '', litres = ''] = [cells['ref'], cells['watered_on'], cells['litres']].map((cell) =>
    cell?.trim(),
  );
  const number = Number(litres.replace(',', '.'));
  const faults = [
    ...(ref === '' ? [{ column: 'ref', message: 'must name a tree, got nothing' }] : []),
    ...(isoDate.safeParse(day).success
      ? []
      : [{ column: 'watered_on', message: `must be a day as 2026-07-01, got ${day || 'nothing'}` }]),
    ...(litres !== '' && number >= min && number <= max
      ? []
      : [{ column: 'litres', message: `must be within ${min}–${max} L, got ${litres || 'nothing'}` }]),
  ];
  return faults.length > 0
    ? { ok: false as const, faults }
    : { ok: true as const, value: { ref, wateredOn: day, litres: number } };
}

/**
 * Holds a contractor's invoice against what was recorded at the trees: `ref,watered_on,litres`, one watering a row.
 * Nothing of it is kept.
 * @throws InvalidInputError, path `file`, for columns that are missing
 */
export async function invoiceReport(db: Knex, bytes: Uint8Array): Promise<InvoiceReport> {
  const { good, issues } = readRows<InvoiceLine>(bytes, ['ref', 'watered_on', 'litres'], lineOf);
  const lines = good.map(({ value }) => value);
  const days = lines.map(({ wateredOn }) => wateredOn).sort((a, b) => a.localeCompare(b));
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return { issues, lines: [], uncharged: [] };
  const span: { from: IsoDate; until: IsoDate } = { from: addDaysTo(first, -1), until: addDaysTo(last, 1) };
  const records = await provenWaterings(db, { refs: lines.map(({ ref }) => ref), ...span });
  const { lines: checked, uncharged } = checkInvoice(lines, records);
  return {
    issues,
    lines: checked.map((one, i) => ({ row: good[i]?.row ?? 0, ...one })),
    uncharged: [...uncharged],
  };
}
