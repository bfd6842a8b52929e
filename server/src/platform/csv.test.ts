import { InvalidInputError } from '@sombra/core';
import fc from 'fast-check';
import { csvRow, csvTable, readCsv } from './csv';
import { parseJsonFile } from './json-file';

const limits = { rows: 1000 };

describe('a CSV that spreadsheets open', () => {
  it.each(['=1+1', '+351 1', '-x', '@sum', '\tx', '\rx', "'=1", "''@x"])(
    'runs nothing that begins as %j does',
    (cell) => {
      const [written = ''] = csvRow([cell]).split('\r\n');
      expect(written.replace(/^"/, '').startsWith("'")).toBe(true);
    },
  );

  it('leaves numbers and words alone', () => {
    expect(csvRow([-25.4, '-25.4', '12', 'Mole Street', "Mary's", '', null])).toBe(
      "-25.4,-25.4,12,Mole Street,Mary's,,\r\n",
    );
  });

  it('reads back as it was written, whatever the cells hold', () => {
    const cell = fc.oneof(
      fc.string({ unit: 'grapheme' }),
      fc.stringMatching(/^'{0,3}[=+\-@\t\r;,|"a]{0,6}$/),
      fc.constantFrom('-', '--1', '-1', "'-1", 'x'),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 8 }), (rows) => {
        const written = csvTable(
          ['one', 'two', 'end'],
          rows.map((row) => [...row, 'x']),
        );
        expect(readCsv(written, limits).rows.map(({ one, two }) => [one, two])).toEqual(rows);
      }),
      { numRuns: 300 },
    );
  });

  it.each([',', ';', '\t'])('is read by the delimiter %j, with any line end', (delimiter) => {
    for (const end of ['\n', '\r\n', '\r']) {
      const text = [
        ['Ref', ' Place '],
        ['A-1', '"Mole, Street"'],
        ['A-2', 'x'],
      ]
        .map((row) => row.join(delimiter))
        .join(end);
      expect(readCsv(text, limits)).toEqual({
        columns: ['ref', 'place'],
        rows: [
          { ref: 'A-1', place: 'Mole, Street' },
          { ref: 'A-2', place: 'x' },
        ],
      });
    }
  });
});

it('refuses a header that names a column twice, and counts those without a name', () => {
  expect(() => readCsv('ref,Place, place\n1,2,3\n', limits)).toThrow('the column place stands twice');
  expect(readCsv('ref,,\n1,2,3\n', limits).columns).toEqual(['ref', 'column 2', 'column 3']);
});

describe('a file made to cost time', () => {
  const many = 3_000_000;
  it.each([
    ['nine million open quotes', `ref,place\n"${'a,"'.repeat(many)}`, 'not closed near row 2'],
    ['quotes alone', `ref,place\n${'"'.repeat(3 * many)}`, 'not closed near row 2'],
    ['a quote and words after it', 'ref,place\nx,"a" b\n', 'not closed near row 2'],
    ['commas alone', `ref,place\n${','.repeat(3 * many)}`, 'more than 300 columns'],
    ['columns without end', `${','.repeat(many)}\n1`, 'row 1 holds more than 300 columns'],
    ['short rows', `ref,place\n${'a\n'.repeat(many)}`, 'holds 3000000 rows; the limit is 1000'],
    ['one cell', `ref,place\n${'a'.repeat(3 * many)}`, 'longer than 300000'],
  ])('is refused before it is parsed: %s', (_case, text, why) => {
    const read = () => readCsv(text, limits);
    expect(read).toThrow(InvalidInputError);
    expect(read).toThrow(why);
  });

  it('may hold a thousand rows, and empty ones besides', () => {
    expect(readCsv(`ref\n${'a\n\n'.repeat(1000)}`, limits).rows).toHaveLength(1000);
    expect(() => readCsv(`ref\n${'a\n'.repeat(1001)}`, limits)).toThrow('1001 rows; the limit is 1000');
  });

  it('of JSON is nested no deeper than GeoJSON is', () => {
    expect(() => parseJsonFile('['.repeat(20_000), 'broken')).toThrow('40 levels');
    expect(() => parseJsonFile('{"a":'.repeat(20_000), 'broken')).toThrow('40 levels');
    expect(parseJsonFile('{"a":"[[[[\\"[[["}', 'broken')).toEqual({ a: '[[[["[[[' });
    const nine = '['.repeat(9) + ']'.repeat(9);
    expect(parseJsonFile(`[${nine},${nine},${nine},${nine},${nine},${nine}]`, 'broken')).toHaveLength(6);
    expect(() => parseJsonFile('{"a":', 'the file is broken')).toThrow('the file is broken');
  });
});
