import { checkInvoice, type InvoiceLine, type ProvenWatering } from '.';

const line = (ref: string, wateredOn: string, litres = 60): InvoiceLine => ({ ref, wateredOn, litres });
const record = (ref: string, wateredOn: string, litres = 60): ProvenWatering => ({
  ...line(ref, wateredOn, litres),
  by: 'Tia',
  photos: 0,
  unseen: false,
});
const verdicts = (lines: InvoiceLine[], records: ProvenWatering[]) =>
  checkInvoice(lines, records).lines.map(({ verdict }) => verdict);

it.each<[string, InvoiceLine[], ProvenWatering[], string[]]>([
  ['what was poured', [line('C-1', '2026-07-01')], [record('C-1', '2026-07-01')], ['proven']],
  ['a tenth less', [line('C-1', '2026-07-01', 60)], [record('C-1', '2026-07-01', 54)], ['proven']],
  ['more than a tenth less', [line('C-1', '2026-07-01', 60)], [record('C-1', '2026-07-01', 53)], ['less_water']],
  ['what was written up the day after', [line('C-1', '2026-07-01')], [record('C-1', '2026-07-02')], ['other_day']],
  ['two days off', [line('C-1', '2026-07-01')], [record('C-1', '2026-07-03')], ['not_on_record']],
  ['another tree', [line('C-1', '2026-07-01')], [record('C-2', '2026-07-01')], ['not_on_record']],
  [
    'the same twice',
    [line('C-1', '2026-07-01'), line('c-1 ', '2026-07-01')],
    [record('C-1', '2026-07-01')],
    ['proven', 'charged_twice'],
  ],
  [
    'two days running, each by its own record',
    [line('C-1', '2026-07-02'), line('C-1', '2026-07-01')],
    [record('C-1', '2026-07-01'), record('C-1', '2026-07-02')],
    ['proven', 'proven'],
  ],
])('%s', (_words, lines, records, expected) => {
  expect(verdicts(lines, records)).toEqual(expected);
});

it('tells what was poured and is charged by no line', () => {
  const { uncharged } = checkInvoice(
    [line('C-1', '2026-07-01'), line('C-1', '2026-07-20')],
    [
      record('C-1', '2026-07-01'),
      record('C-1', '2026-07-10'),
      record('C-1', '2026-08-10'),
      record('C-9', '2026-07-10'),
    ],
  );
  expect(uncharged.map(({ wateredOn }) => wateredOn)).toEqual(['2026-07-10']);
});
it('an invoice of nothing is checked as nothing', () => {
  expect(checkInvoice([], [record('C-1', '2026-07-01')])).toEqual({ lines: [], uncharged: [] });
});
