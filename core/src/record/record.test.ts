import { inOrder, ofKind, standing, type FieldRecord } from './record';

const make = (id: string, recordedAt: string, supersedes: string | null = null): FieldRecord => ({
  id,
  kind: 'remedy',
  recordedAt,
  supersedes,
  facts: { remedy: 'water_now', doneOn: '2026-06-01' },
});

describe('records', () => {
  it('stand in the order they were made, whatever zone the clock was in', () => {
    const records = [
      make('c', '2026-06-01T12:00:00Z'),
      make('a', '2026-06-01T12:30:00+02:00'),
      make('b', '2026-06-01T11:00:00Z'),
    ];
    expect(inOrder(records).map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  });

  it('of the same instant go by id', () => {
    const at = '2026-06-01T12:00:00Z';
    expect(inOrder([make('b', at), make('a', at)]).map(({ id }) => id)).toEqual(['a', 'b']);
  });

  it('that were corrected no longer stand, through a chain of corrections', () => {
    const records = [
      make('a', '2026-06-01T10:00:00Z'),
      make('b', '2026-06-01T11:00:00Z', 'a'),
      make('c', '2026-06-01T12:00:00Z', 'b'),
      make('d', '2026-06-01T09:00:00Z'),
    ];
    expect(standing(records).map(({ id }) => id)).toEqual(['d', 'c']);
    expect(records).toHaveLength(4);
  });

  it('are told apart by kind', () => {
    expect(ofKind([make('a', '2026-06-01T10:00:00Z')], 'stock')).toEqual([]);
    expect(ofKind([make('a', '2026-06-01T10:00:00Z')], 'remedy')).toHaveLength(1);
  });
});
