import { readRows } from './percolation-field';

const mm = (level: number) => level;

describe('percolation rows', () => {
  it('reads complete rows and passes over empty ones', () => {
    expect(
      readRows(
        [
          { minute: '0', level: '300' },
          { minute: '', level: '' },
          { minute: '30', level: '280,5' },
        ],
        mm,
      ),
    ).toEqual([
      { minute: 0, levelMm: 300 },
      { minute: 30, levelMm: 280.5 },
    ]);
  });

  it.each([
    [{ minute: '30', level: '' }, 'Reading 1 needs a minute and a level, as numbers'],
    [{ minute: 'noon', level: '280' }, 'Reading 1 needs a minute and a level, as numbers'],
    [{ minute: '9999', level: '280' }, 'Reading 1: minute must be within 0–2880, got 9999'],
    [{ minute: '30', level: '5000' }, 'Reading 1: level must be within 0–2000 mm, got 5000'],
  ])('questions %j', (row, fault) => {
    expect(readRows([row], mm)).toBe(fault);
  });

  it('takes levels in the units of the reader', () => {
    expect(readRows([{ minute: '0', level: '10' }], (inches) => inches * 25.4)).toEqual([{ minute: 0, levelMm: 254 }]);
  });
});
