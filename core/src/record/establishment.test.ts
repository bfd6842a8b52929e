import type { RemedySeen } from '../inspect';
import { fieldDefault as byDefault, withChoice } from '../practice';
import { establishedOn, type EstablishmentStep } from './establishment';
import { ground, planting, rec, stock } from '../../testing/water-cases';
import { lookOn } from '../../testing/remedy-cases';
import type { FieldRecord } from './record';
import { spotLife } from './spot-life';

/** Nothing is pruned by the calendar: what else is asked for stands by itself. */
const fieldDefault = withChoice(byDefault, 'pruning.structural', 'none');

const planted = [ground(), stock(), planting()];
/** Planted on 1 May 2026 with 50 mm of caliper: 6 months for each 25 mm end on 1 May 2027. */
const life = (more: readonly FieldRecord[], practice = fieldDefault) => spotLife([...planted, ...more], { practice });
const clean: RemedySeen = {
  alive: 'green',
  signs: [],
  shootMm: 300,
  shootBeforeMm: 280,
  stake: 'none',
  rocks: 'firm',
  mulchContact: 'clear',
  mulchDepthMm: 70,
  flareDepthMm: 0,
  circlingRoots: [],
  probe: 'moist',
};
const [yearOn, later] = ['2027-06-20', '2027-08-01'];
const lines = (more: readonly FieldRecord[], on = later, practice = fieldDefault) => {
  const { establishment } = life(more, practice);
  if (!establishment) throw new Error('not planted');
  return Object.fromEntries(
    establishedOn(establishment, on).map(({ step, state, because }) => [step, [state, because.code]]),
  );
};
const state = (step: EstablishmentStep, seen: RemedySeen, ...more: readonly FieldRecord[]) =>
  lines([lookOn(yearOn, { ...clean, ...seen }), ...more])[step]?.[0];
const kinds = (...more: readonly FieldRecord[]) => life(more).decisions.map(({ kind }) => kind);
const signs = (signedOn: string, reason = '') => rec('signed_off', { signedOn, reason });

describe('a tree that may be established', () => {
  it('is asked about once time, growth, stand, water and a clean look say so', () => {
    const found = life([lookOn(yearOn, clean)]);
    expect(lines([lookOn(yearOn, clean)])).toEqual({
      time: ['met', 'established_floor'],
      growth: ['met', 'established_growth'],
      firm: ['met', 'established_firm'],
      water: ['met', 'established_by_soil'],
      look: ['met', 'established_clean'],
    });
    expect(found.decisions.find(({ kind }) => kind === 'sign_off')).toMatchObject({ dueOn: yearOn, level: 'good' });
  });

  it.each<[EstablishmentStep, string, RemedySeen, FieldRecord[]]>([
    ['growth', 'not_yet', { shootMm: 220 }, []],
    ['growth', 'met', { shootMm: 224 }, []],
    ['growth', 'unknown', { shootMm: undefined }, []],
    ['firm', 'not_yet', { stake: 'in_place' }, []],
    ['firm', 'not_yet', { rocks: 'ball_moves' }, []],
    ['firm', 'unknown', { rocks: undefined }, []],
    ['water', 'unknown', { probe: null }, []],
    ['water', 'not_yet', { probe: 'dry' }, []],
    ['water', 'unknown', {}, [rec('watering', { wateredOn: '2027-06-01', litres: 40 })]],
    ['water', 'met', {}, [rec('watering', { wateredOn: '2027-05-20', litres: 40 })]],
    ['look', 'not_yet', { mulchContact: 'heaped' }, []],
    ['look', 'unknown', { flareDepthMm: null }, []],
  ])('is not by %s: %s', (step, expected, seen, more) => {
    expect(state(step, seen, ...more)).toBe(expected);
    if (expected !== 'met') expect(kinds(lookOn(yearOn, { ...clean, ...seen }), ...more)).not.toContain('sign_off');
  });

  it('needs its time, by the caliper and by the practice', () => {
    const early = [lookOn('2027-04-01', clean)];
    expect(lines(early, '2027-04-30')['time']?.[0]).toBe('not_yet');
    expect(lines(early, '2027-05-01')['time']?.[0]).toBe('met');
    const cold = withChoice(fieldDefault, 'inspection.establishMonthsPer25Mm', 12);
    expect(lines([lookOn(yearOn, clean)], '2028-04-30', cold)['time']?.[0]).toBe('not_yet');
    expect(life([lookOn(yearOn, clean)], cold).establishment?.readyOn).toBe('2028-05-01');
  });

  it('grows as in the nursery in its first year: that tells nothing yet', () => {
    expect(lines([lookOn('2027-04-20', clean)])['growth']?.[0]).toBe('not_yet');
  });

  it('is not told of by a look of over a year ago', () => {
    expect(lines([lookOn(yearOn, clean)], '2028-07-19')['look']).toEqual(['met', 'established_clean']);
    expect(lines([lookOn(yearOn, clean)], '2028-07-20')['look']).toEqual(['unknown', 'established_look_old']);
  });
});

describe('once it is signed off', () => {
  const look = lookOn(yearOn, clean);
  it('nobody looks by the calendar, and nobody is asked', () => {
    const signed = life([look, signs('2027-07-01')]);
    expect(signed.establishment?.signedOn).toBe('2027-07-01');
    expect([signed.nextLook, signed.decisions]).toEqual([null, []]);
  });
  it('what is found later is looked at again', () => {
    const found = lookOn('2028-01-10', { probe: 'saturated' });
    expect(life([look, signs('2027-07-01'), found]).nextLook?.on).toBe('2028-01-17');
  });
  it('it counts no more where that was taken back, or another tree was planted', () => {
    const signed = signs('2027-07-01');
    const back = { ...rec('retraction', { reason: 'wrong tree' }), supersedes: signed.id };
    expect(kinds(look, signed, back)).toEqual(['sign_off', 'look']);
    const anew = rec('planting', {
      plantedOn: '2027-11-01',
      flareAboveGradeMm: [40],
      holeWidthMm: 1125,
      firstWaterL: 50,
      practiceId: 'field-default',
      practiceVersion: 1,
    });
    expect(life([look, signed, anew]).establishment?.signedOn).toBeNull();
  });
});
