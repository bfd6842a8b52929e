import { isDeepStrictEqual } from 'node:util';
import { fieldRecordSchema, receivedTreeSchema } from '@sombra/contract';
import { fieldDefault, judgeLot, spotLife, standing } from '@sombra/core';
import { demoTown, preparedSpots } from './town';

const today = '2026-11-23';
const town = demoTown({ seed: 'talhamar', today });
const strip = ({ by: _by, device: _device, ...record }: (typeof town.spots)[number]['records'][number]) => record;
const lives = town.spots.map((spot) => ({ spot, life: spotLife(spot.records.map(strip), { practice: fieldDefault }) }));
const on = (place: string) => lives.filter(({ spot }) => spot.place === place);

describe('the demo town', () => {
  it('is the same town for the same seed and day, another for another seed', () => {
    // Compared as a whole: a matcher that walks a town takes half a minute.
    expect(isDeepStrictEqual(demoTown({ seed: 'talhamar', today }), town)).toBe(true);
    const ids = (seed: string) => preparedSpots({ seed, today }).map(({ id }) => id);
    expect(ids('other')).not.toEqual(ids('talhamar'));
  });

  it('holds only records the doors would take, with ids of their own', () => {
    const records = town.spots.flatMap((spot) => spot.records);
    const faults = records.map((record) => fieldRecordSchema.safeParse(strip(record)).error).filter((error) => error);
    expect(faults).toEqual([]);
    expect(new Set(records.map(({ id }) => id)).size).toBe(records.length);
  });

  it('has no record from tomorrow', () => {
    const days = town.spots.flatMap((spot) => spot.records.map(({ recordedAt }) => recordedAt.slice(0, 10)));
    expect(days.filter((day) => day > today)).toEqual([]);
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

  it('has the size of a programme: four seasons and more of trees, two hundred spots in preparation', () => {
    const planted = lives.filter(({ life }) => life.planting);
    expect(planted.length).toBeGreaterThan(1450);
    expect(planted.length).toBeLessThan(1650);
    expect(lives.length - planted.length).toBeGreaterThan(180);
    const years = new Set(planted.map(({ life }) => life.planting?.record.facts.plantedOn.slice(0, 4)));
    expect(years.size).toBeGreaterThanOrEqual(4);
  });

  it('books more than it has cleared: a spot of the next day outside its ticket, a ticket run out by another day', () => {
    const [next, later] = town.days.filter(({ onDay }) => onDay > today);
    const covering = town.tickets.find(({ number }) => number === 'LC-2214');
    const east = Math.max(...(covering?.ring ?? []).map(([lng]) => lng));
    const members = town.spots.filter(({ id }) => next?.spotIds.includes(id));
    expect(members.some(({ lng }) => lng > east)).toBe(true);
    expect(members.some(({ lng }) => lng < east)).toBe(true);
    const forLater = town.tickets.find(({ number }) => number === 'LC-2209');
    expect((forLater?.validUntil ?? '') < (later?.onDay ?? '')).toBe(true);
  });

  it('leaves a street unassessed, and has places to settle and species to choose', () => {
    expect(on('Kelp Road').filter(({ spot }) => spot.records.length === 0).length).toBeGreaterThan(10);
    const kinds = lives.flatMap(({ life }) => life.decisions.map(({ kind }) => kind));
    expect(kinds.filter((kind) => kind === 'settle_ground').length).toBeGreaterThan(5);
    expect(kinds.filter((kind) => kind === 'choose_species').length).toBeGreaterThan(25);
    const unchosen = lives.filter(({ life }) => life.stage === 'match' || life.stage === 'ground');
    expect(unchosen.every(({ spot }) => spot.species === null)).toBe(true);
  });

  it('has tickets in trouble: a reply missing, a line in conflict', () => {
    const replies = town.tickets.flatMap((ticket) => ticket.replies.map(({ state }) => state));
    expect(new Set(replies)).toEqual(new Set(['clear', 'marked', 'waiting', 'conflict']));
  });

  it('has weather for each day up to today, then a forecast, with storms and hot spells', () => {
    const { recorded, forecast } = town.weather;
    expect(recorded.at(-1)?.day).toBe(today);
    expect(new Set(recorded.map(({ day }) => day)).size).toBe(recorded.length);
    expect(recorded.length).toBeGreaterThan(4 * 365);
    expect(forecast[0]?.day).toBe('2026-11-24');
    expect(recorded.filter(({ rainMm }) => rainMm > 35).length).toBeGreaterThan(3);
    expect(recorded.filter(({ tMaxC }) => tMaxC > 30).length).toBeGreaterThan(3);
  });

  it('lies on its own map: trees on land, streets and houses beside each other', () => {
    expect(Object.fromEntries(Object.entries(town.base).map(([layer, list]) => [layer, list.length > 0]))).toEqual({
      water: true,
      park: true,
      contour: true,
      street: true,
      building: true,
      tram: true,
      wire: true,
      kerb: true,
      driveway: true,
      hydrant: true,
      lamp: true,
      sign: true,
    });
    for (const { lng, lat } of town.spots) {
      expect(lat > 36.8955 && lat < 36.9085).toBe(true);
      expect(lng > -25.4165 && lng < -25.3955).toBe(true);
    }
  });

  it('waits in every stage that is open', () => {
    expect(new Set(lives.map(({ life }) => life.stage))).toEqual(
      new Set(['ground', 'match', 'stock', 'pit', 'day', 'inspect']),
    );
  });

  it('prepares thirty spots for the example files, most with their trees measured', () => {
    const prepared = preparedSpots({ seed: 'talhamar', today });
    expect(prepared).toHaveLength(30);
    const withStock = prepared.filter((spot) =>
      standing(spot.records.map(strip)).some((record) => record.kind === 'stock'),
    );
    expect(withStock).toHaveLength(24);
  });

  it('has a delivery half looked at, from the nursery that sends deep stock, and an order on its way', () => {
    const [arrived, awaited] = town.deliveries;
    expect([arrived?.arrivedOn, awaited?.arrivedOn]).toEqual(['2026-11-21', null]);
    const [deep, sound] = arrived?.lots ?? [];
    const judged = (lot: typeof deep) =>
      lot &&
      judgeLot(
        {
          arrived: lot.spots.length,
          opened: lot.trees.map(({ tree }) => tree),
          ordered: { kind: lot.stockKind, caliperMm: lot.caliperMm },
        },
        fieldDefault.receiving,
      );
    expect(judged(deep)?.bad).toBeGreaterThan(0);
    expect(judged(sound)?.bad).toBe(0);
    for (const { tree } of town.deliveries.flatMap(({ lots }) => lots.flatMap(({ trees }) => trees))) {
      expect(receivedTreeSchema.safeParse(tree).error).toBeUndefined();
    }
    // For places that wait for their tree, each in one order only.
    const refs = town.deliveries.flatMap(({ lots }) => lots.flatMap((lot) => lot.spots));
    expect(new Set(refs).size).toBe(refs.length);
    const waiting = new Set(lives.filter(({ life }) => life.stage === 'stock').map(({ spot }) => spot.ref));
    expect(refs.every((ref) => waiting.has(ref))).toBe(true);
  });
});
