import { addDaysTo } from '../calendar';
import { unknownAssessment, type Assessment } from '../ground';
import { fieldDefault } from '../practice';
import {
  follow,
  ground,
  loam,
  look,
  plantedOn,
  planting,
  rec,
  span,
  sparing,
  standing,
  station,
  stock,
  today,
  watered,
} from '../../testing/water-cases';
import type { RecordFacts } from './kinds';
import type { FieldRecord } from './record';
import { spotLife } from './spot-life';
import { treeWater, waterInputs, type TreeWater } from './tree-water';

const firstDry = ({ days }: TreeWater) => days.find(({ share }) => share < 0.5)?.day ?? '9999';

describe('a tree that others planted', () => {
  it('is followed from the day it was taken over, without a soak nobody told of', () => {
    const over = { on: '2026-07-01', from: 'Dock Office' };
    const built = { ...planting().facts, firstWaterL: undefined, takenOver: over } as RecordFacts['planting'];
    const kept = [ground(), stock(null), rec('planting', built), watered('2026-06-20', 40), watered('2026-07-10', 30)];
    const inputs = waterInputs(kept, spotLife(kept, { practice: fieldDefault }), null);
    expect(inputs?.subject.plantedOn).toBe('2026-07-01');
    expect(inputs?.given.doses.map(([day]) => day)).toEqual(['2026-07-10']);
    expect(inputs?.subject.came).toEqual({ share: 0.7, errorShare: 0.25 });
  });
});

describe('the water of a tree', () => {
  it('holds what its ball holds: 45.96 L of bark mix between 0.40 and 0.15', () => {
    expect(follow(loam).holdsL).toBeCloseTo(45.96 * 0.25, 1);
  });

  it('is not followed before planting, or without any weather since', () => {
    const basis = (records: FieldRecord[]) => spotLife(records, { practice: fieldDefault });
    const weather = { station, recorded: span(plantedOn, 61), forecast: [] };
    const none = [ground(), stock()];
    expect(treeWater({ records: none, basis: basis(none), species: null, weather, today })).toBeNull();
    const early = { ...weather, recorded: span('2026-01-01', 20) };
    expect(treeWater({ records: loam, basis: basis(loam), species: null, weather: early, today })).toBeNull();
  });

  it('dries out in a hot spell, sooner for a thirsty tree and in the wind, later with a dose', () => {
    const usual = firstDry(follow(loam));
    expect(usual > plantedOn && usual < '2026-05-15').toBe(true);
    expect(firstDry(follow(loam, { species: sparing })) > usual).toBe(true);
    expect(firstDry(follow(loam, { windy: true })) <= usual).toBe(true);
    expect(firstDry(follow([...loam, watered('2026-05-02', 40)])) >= usual).toBe(true);
    expect(follow(loam).stressDays).toBeGreaterThan(follow(loam, { species: sparing }).stressDays);
  });

  it('asks for what is missing, on the day half of it is gone', () => {
    const wet = [...loam, watered(today, 200)];
    const { next, days, holdsL } = follow(wet, { forecast: span('2026-07-01', 10) });
    expect(days.at(-1)?.share).toBeGreaterThan(0.9);
    if (next.kind !== 'water') throw new Error(next.kind);
    expect(next.on > today && next.on <= '2026-07-10').toBe(true);
    // Less than half is left, of what a dose of nine tenths reaches.
    expect(next.litres).toBeGreaterThan(holdsL / 2 / 0.9 - 1e-9);
    // What soil beside the ball is short of comes on top, up to as much as the ball holds.
    expect(next.litres).toBeLessThanOrEqual((2 * holdsL) / 0.9);
  });

  it('never dries out as far as is seen, where it rains each day', () => {
    const rain = { rainMm: 12, tMaxC: 20 };
    const { next, stressDays } = follow(loam, {
      recorded: span(plantedOn, 61, rain),
      forecast: span('2026-07-01', 10, rain),
    });
    expect([next.kind, stressDays]).toEqual(['never_dries', 0]);
  });

  it('drowns in ground that takes no water, and not in ground that does', () => {
    const doses = Array.from({ length: 60 }, (_, i) => watered(addDaysTo(plantedOn, i + 1), 40));
    const [slow, good] = [follow([standing, stock(), planting(), ...doses]), follow([...loam, ...doses])];
    expect([slow.next.kind, good.next.kind]).toEqual(['drowned', 'not_forecast']);
    expect(slow.waterloggedDays).toBeGreaterThan(30);
    expect(good.waterloggedDays).toBe(0);
  });

  it('believes a probe, and says where it did not expect what was found', () => {
    const at = addDaysTo(plantedOn, 1);
    const on = ({ days }: TreeWater) => days.find(({ day }) => day === at)?.share ?? 0;
    const [unread, probed] = [follow(loam), follow([...loam, look(at, 'dry')])];
    expect(on(probed)).toBeLessThan(on(unread) - 0.2);
    expect(probed.surprises).toHaveLength(1);
    expect(follow([...loam, look(at, 'moist')]).surprises).toEqual([]);
  });

  it('comes to the same whenever a record arrives, and drops one that was taken back', () => {
    const [first, second] = [watered('2026-05-10', 40), watered('2026-05-20', 40)];
    const before = follow([...loam, first, second]);
    expect(follow([...loam, second, first])).toEqual(before);
    const slip = watered('2026-05-15', 200);
    const back = { ...rec('retraction', { reason: 'wrong tree' }), supersedes: slip.id } as FieldRecord;
    expect(follow([...loam, first, second, slip, back])).toEqual(before);
    expect(follow([...loam, first, second, slip])).not.toEqual(before);
  });

  it('rests in winter: a cold dry month takes less than a warm one', () => {
    const cold = span(plantedOn, 61, { tMinC: 3, tMaxC: 11 });
    expect(follow(loam, { recorded: cold }).stressDays).toBeLessThan(follow(loam).stressDays);
  });
});

describe('the place of a tree', () => {
  const inputsOf = (records: FieldRecord[], assessment?: Partial<Assessment>) => {
    const kept = assessment
      ? [...records, rec('assessment', { ...unknownAssessment('2026-01-02'), ...assessment })]
      : records;
    return waterInputs(kept, spotLife(kept, { practice: fieldDefault }), null)?.subject;
  };
  const neighbour = (distanceM: number) => ({ neighbourRoots: { species: '', distanceM, thickestMm: 20 } });

  it('shares its soil with a neighbour near enough', () => {
    expect(inputsOf(loam)?.others).toBeUndefined();
    expect(inputsOf(loam, neighbour(5))?.others).toBe(0.3);
    expect(inputsOf(loam, neighbour(5.1))?.others).toBeUndefined();
  });
  it('shares its soil with grass in its ring, until somebody clears it', () => {
    const seen = (turf: 'clear' | 'creeping', inspectedOn: string) =>
      rec('inspection', {
        inspectedOn,
        turf,
        flareDepthMm: null,
        mulchDepthMm: null,
        mulchContact: null,
        stake: null,
        probe: null,
        circlingRoots: null,
      });
    const cleared = (doneOn: string) => rec('remedy', { remedy: 'clear_turf', doneOn });
    const creeping = seen('creeping', '2026-05-10');
    expect(inputsOf([...loam, creeping])?.others).toBe(0.3);
    expect(inputsOf([...loam, creeping], neighbour(3))?.others).toBeCloseTo(0.6, 9);
    expect(inputsOf([...loam, creeping, cleared('2026-05-09')])?.others).toBe(0.3);
    expect(inputsOf([...loam, creeping, cleared('2026-05-10')])?.others).toBeUndefined();
    expect(inputsOf([...loam, creeping, seen('clear', '2026-06-01')])?.others).toBeUndefined();
  });
  it('loses rain on a slope, and more of a dose without a berm', () => {
    const on = (slopePct: number, ...more: FieldRecord[]) =>
      inputsOf([ground({ slopePct }), stock(), planting(), ...more]);
    expect(on(5)?.runsOff).toBeUndefined();
    expect(on(15)?.runsOff).toBeCloseTo(0.1, 9);
    expect(on(60)?.runsOff).toBe(0.3);
    const bare = rec('override', { decidedOn: '2026-01-05', path: 'berm.where', value: 'none', reason: 'paved' });
    expect(on(15)?.reaches).toBeUndefined();
    expect(on(0, bare)?.reaches).toBeCloseTo(0.8, 9);
    expect(on(15, bare)?.reaches).toBeCloseTo(0.7, 9);
  });
  it('is weaned where it was planted in leaf from a container', () => {
    const subject = (dormant: boolean) => {
      const basis = spotLife(loam, { practice: fieldDefault });
      return waterInputs(loam, { ...basis, dormant }, null)?.subject;
    };
    expect(subject(false)?.weaning).toBe(true);
    expect(subject(true)?.weaning).toBeUndefined();
  });
});
