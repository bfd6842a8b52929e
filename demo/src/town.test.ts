import { fieldRecordSchema } from '@sombra/contract';
import { fieldDefault, spotLife, standing } from '@sombra/core';
import { demoTown, preparedSpots } from './town';

const today = '2026-11-23';
const town = demoTown({ seed: 'talhamar', today });
const strip = ({ by: _by, device: _device, ...record }: (typeof town.spots)[number]['records'][number]) => record;
const lives = town.spots.map((spot) => ({ spot, life: spotLife(spot.records.map(strip), fieldDefault) }));
const on = (place: string) => lives.filter(({ spot }) => spot.place === place);

describe('the demo town', () => {
  it('is the same town for the same seed and day, another for another seed', () => {
    expect(demoTown({ seed: 'talhamar', today })).toEqual(town);
    expect(demoTown({ seed: 'other', today }).spots[0]?.id).not.toBe(town.spots[0]?.id);
  });

  it('holds only records the doors would take, with ids of their own', () => {
    const records = town.spots.flatMap((spot) => spot.records);
    for (const record of records) expect(fieldRecordSchema.safeParse(strip(record)).error).toBeUndefined();
    expect(new Set(records.map(({ id }) => id)).size).toBe(records.length);
  });

  it('has no record from tomorrow', () => {
    for (const spot of town.spots)
      for (const record of spot.records) expect(record.recordedAt.slice(0, 10) <= today).toBe(true);
  });

  it('shows its troubles through the core', () => {
    expect(on('Mole Street').some(({ life }) => life.decisions.some((d) => d.remedy === 'remove_stake'))).toBe(true);
    expect(
      on('Weavers Row').some(({ life }) =>
        life.inspections.some((look) => (look.record.facts.flareDepthMm ?? 0) >= 75),
      ),
    ).toBe(true);
    expect(
      on('Potters Corner').some(({ life }) => life.inspections.some((look) => look.record.facts.probe === 'saturated')),
    ).toBe(true);
    expect(
      on('Harbour Parade').some(({ life }) =>
        life.decisions.some((d) => d.because.some((b) => b.code === 'percolation_questioned')),
      ),
    ).toBe(true);
  });

  it('waits in every stage that is open', () => {
    expect(new Set(lives.map(({ life }) => life.stage))).toEqual(new Set(['ground', 'stock', 'day', 'inspect']));
  });

  it('prepares thirty spots for the example files, most with their trees measured', () => {
    const prepared = preparedSpots({ seed: 'talhamar', today });
    expect(prepared).toHaveLength(30);
    const withStock = prepared.filter((spot) =>
      standing(spot.records.map(strip)).some((record) => record.kind === 'stock'),
    );
    expect(withStock).toHaveLength(24);
  });
});
