import { shippedSpecies } from '@sombra/core';
import { readOfferCells, readSpeciesCells, speciesCells, speciesColumns } from './species-row';

describe('species as rows of a file', () => {
  it('come back the same, every one that ships', () => {
    for (const species of shippedSpecies) {
      expect(readSpeciesCells(speciesCells(species))).toEqual({ ok: true, value: species });
    }
  });

  const oak = speciesCells(
    shippedSpecies.find(({ botanical }) => botanical === 'Quercus suber') as (typeof shippedSpecies)[number],
  );
  it.each([
    ['spread but no height', { height_min_m: '', height_max_m: '' }, ['height_min_m', 'height_max_m']],
    ['a height that ends before it begins', { height_min_m: '30' }, ['height_max_m']],
    ['a name that is none', { botanical: 'oak' }, ['botanical']],
    ['a month there is not', { flower: '5 13' }, ['flower']],
    ['a grade nobody knows', { drought: 'huge' }, ['drought']],
    ['thorns that are neither', { thorns: 'perhaps' }, ['thorns']],
    ['a stock kind it cannot have', { bare_root: 'maybe' }, ['bare_root']],
  ])('are refused by column with %s', (_name, change, columns) => {
    const read = readSpeciesCells({ ...oak, ...change });
    expect(read.ok ? [] : read.faults.map(({ column }) => column)).toEqual(columns);
  });

  it('name every column once', () => {
    expect(Object.keys(oak)).toEqual([...speciesColumns]);
  });
});

describe('a line of an availability list', () => {
  const line = {
    species: 'Quercus suber',
    stock_kind: 'container',
    caliper_mm: '40',
    height_m: '',
    price: '85,50',
    available: '12',
  };
  it('is read with decimal commas and an open height', () => {
    expect(readOfferCells(line)).toEqual({
      ok: true,
      value: {
        species: 'Quercus suber',
        stock_kind: 'container',
        caliper_mm: 40,
        height_m: null,
        price: 85.5,
        available: 12,
      },
    });
  });

  it.each([
    [{ caliper_mm: '2' }, 'caliper_mm'],
    [{ price: '-5' }, 'price'],
    [{ available: '2.5' }, 'available'],
    [{ stock_kind: 'potted' }, 'stock_kind'],
    [{ species: '' }, 'species'],
  ])('is refused with %j', (change, column) => {
    const read = readOfferCells({ ...line, ...change });
    expect(read.ok ? null : read.faults[0]?.column).toBe(column);
  });
});
