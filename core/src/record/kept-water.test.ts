import fc from 'fast-check';
import { follow, loam, look, plantedOn, span, station, thirsty, today, watered } from '../../testing/water-cases';
import { addDaysTo } from '../calendar';
import { fieldDefault } from '../practice';
import { mildWinterWindows } from '../season';
import { followWater, givenDiffersFrom, waterAt, waterClimate, type WaterClimate } from '../water';
import {
  advanceWater,
  beginningOf,
  checkpointBefore,
  climateDiffersFrom,
  daysAfter,
  followedUntil,
  spotLife,
  waterInputs,
  type FieldRecord,
  type TreeInputs,
} from '.';

const rainy = span(plantedOn, 61).map((day, i) => ({ ...day, rainMm: i % 9 === 0 ? 14 : 0, tMaxC: 24 + (i % 7) }));
const climate = waterClimate(
  { station, recorded: rainy, forecast: span('2026-07-01', 10) },
  { windows: mildWinterWindows, today },
);
const inputsOf = (records: readonly FieldRecord[]): TreeInputs => {
  const basis = spotLife(records, { practice: fieldDefault, windows: mildWinterWindows });
  const inputs = waterInputs(records, basis, thirsty);
  if (!inputs) throw new Error('no inputs');
  return inputs;
};
const begin = (inputs: TreeInputs) => {
  const start = beginningOf(inputs, climate);
  if (!start) throw new Error('no weather');
  return start;
};
const until = (all: WaterClimate, day: string): WaterClimate => ({
  ...all,
  past: all.past.filter((one) => one.day <= day),
});
const given = [...loam, watered('2026-05-20', 30), look('2026-06-05', 'moist'), watered('2026-06-18', 55)];

describe('a tree followed night by night', () => {
  it('comes to the same to the last bit wherever the nights are cut', () => {
    const inputs = inputsOf(given);
    const whole = advanceWater(inputs, begin(inputs), climate).kept;
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 59 }), { maxLength: 12 }), (cuts) => {
        let at = begin(inputs);
        for (const cut of [...cuts].sort((a, b) => a - b)) {
          at = advanceWater(inputs, at, until(climate, addDaysTo(plantedOn, cut))).kept.checkpoint;
        }
        expect(advanceWater(inputs, at, climate).kept).toEqual(whole);
      }),
      { numRuns: 40 },
    );
  });

  it('run on from before a record that came late, is as if it had been there all along', () => {
    const before = inputsOf(given);
    const late = inputsOf([...given, watered('2026-06-28', 60)]);
    const { monthEnds } = advanceWater(before, begin(before), climate);
    const from = givenDiffersFrom(before.given, late.given);
    expect(from).toBe('2026-06-28');
    const checkpoint = checkpointBefore(monthEnds, from ?? '');
    expect(checkpoint?.day).toBe('2026-05-31');
    const again = advanceWater(late, checkpoint ?? begin(late), climate).kept;
    expect(again).toEqual(advanceWater(late, begin(late), climate).kept);
    expect(again.share).toBeGreaterThan(advanceWater(before, begin(before), climate).kept.share);
  });

  it('says what the whole account of the tree says', () => {
    const inputs = inputsOf(given);
    const whole = follow(given, { recorded: rainy, forecast: span('2026-07-01', 10) });
    const { kept } = advanceWater(inputs, begin(inputs), climate);
    expect(kept.next).toEqual(whole.next);
    expect([kept.share, kept.errorShare, kept.supply]).toEqual([
      whole.days.at(-1)?.share,
      whole.days.at(-1)?.errorShare,
      whole.days.at(-1)?.supply,
    ]);
    expect(kept.checkpoint.stressDays).toBe(whole.stressDays);
  });

  it('tells its state from a checkpoint as the day itself told it', () => {
    const inputs = inputsOf(given);
    const { days, to } = followWater(
      inputs.subject,
      begin(inputs),
      daysAfter(climate, addDaysTo(plantedOn, -1)),
      inputs.given,
    );
    expect(waterAt(inputs.subject, to)).toMatchObject({ share: days.at(-1)?.share, supply: days.at(-1)?.supply });
  });

  it('keeps the last day of each month', () => {
    const inputs = inputsOf(given);
    expect(advanceWater(inputs, begin(inputs), climate).monthEnds.map(({ day }) => day)).toEqual([
      '2026-05-31',
      '2026-06-30',
    ]);
  });

  it('counts since when a ball drowns across the nights', () => {
    const often = Array.from({ length: 61 }, (_, i) => watered(addDaysTo(plantedOn, i), 300));
    const inputs = inputsOf([...loam, ...often]);
    const whole = advanceWater(inputs, begin(inputs), climate).kept;
    const first = advanceWater(inputs, begin(inputs), until(climate, '2026-06-11')).kept.checkpoint;
    expect(advanceWater(inputs, first, climate).kept).toEqual(whole);
  });
});

describe('a day that is not measured yet', () => {
  const late = (days: number, forecast = span(addDaysTo(plantedOn, days), 20)) =>
    waterClimate({ station, recorded: rainy.slice(0, days), forecast }, { windows: mildWinterWindows, today });
  const kept = (records: readonly FieldRecord[], by: WaterClimate) => {
    const inputs = inputsOf(records);
    const start = beginningOf(inputs, by);
    if (!start) throw new Error('no weather');
    return advanceWater(inputs, start, by).kept;
  };

  it('counts with what was poured on it, by its forecast; the checkpoint stays at the last that was measured', () => {
    const yesterday = late(60);
    const [dry, wet] = [kept(loam, yesterday), kept([...loam, watered(today, 150)], yesterday)];
    expect(dry.next).toMatchObject({ kind: 'water' });
    expect(dry.share).toBeLessThan(0.5);
    expect(wet.share).toBeGreaterThan(0.8);
    expect(wet.next.kind === 'water' && wet.next.on <= today).toBe(false);
    expect(wet.checkpoint).toEqual(dry.checkpoint);
    expect(wet.checkpoint.day).toBe(addDaysTo(today, -1));
  });

  it('is as the last one was, without rain, where a station is silent and nobody forecast it', () => {
    const silent = late(50, []);
    expect(silent.ahead.map(({ day }) => day).filter((day) => day <= today)).toHaveLength(11);
    expect(silent.ahead.find(({ day }) => day === today)?.rainMm).toBe(0);
    expect(kept(loam, silent).supply).toBeLessThan(kept(loam, late(60)).supply + 0.2);
  });

  it('a tree planted on it is followed from it on, and comes to the same once it was measured', () => {
    const before = waterClimate(
      { station, recorded: rainy.slice(0, 1).map((day) => ({ ...day, day: addDaysTo(plantedOn, -1) })), forecast: [] },
      { windows: mildWinterWindows, today: plantedOn },
    );
    const inputs = inputsOf(given);
    const first = beginningOf(inputs, before);
    if (!first) throw new Error('not followed');
    const { checkpoint, share } = advanceWater(inputs, first, before).kept;
    expect(checkpoint.day).toBe(addDaysTo(plantedOn, -1));
    expect(share).toBeGreaterThan(0.9);
    expect(advanceWater(inputs, checkpoint, climate).kept).toEqual(advanceWater(inputs, begin(inputs), climate).kept);
  });
});

describe('what was given', () => {
  it.each([
    ['nothing new', given, null],
    ['a dose taken back', given.filter(({ kind }) => kind !== 'watering'), '2026-05-20'],
    [
      'a reading said otherwise',
      [...given.filter(({ kind }) => kind !== 'inspection'), look('2026-06-05', 'dry')],
      '2026-06-05',
    ],
  ])('differs from the first day it changed: %s', (_name, records, day) => {
    expect(givenDiffersFrom(inputsOf(given).given, inputsOf(records).given)).toBe(day);
  });
});

describe('a climate', () => {
  it('differs from the day a reading was corrected, and not by days that were added', () => {
    const changed = climate.past.map((day) => (day.day === '2026-06-02' ? { ...day, rainMm: 3 } : day));
    expect(climateDiffersFrom(climate.past, changed)).toBe('2026-06-02');
    expect(climateDiffersFrom(climate.past.slice(0, 30), climate.past)).toBeNull();
    expect(climateDiffersFrom(climate.past, climate.past.slice(1))).toBe(plantedOn);
    // A file of an older year: everything after it is another.
    expect(climateDiffersFrom(climate.past.slice(20), climate.past)).toBe(plantedOn);
  });
});

describe('how long water is followed', () => {
  it.each([
    ['two years at least', 30, fieldDefault.routine, '2028-05-01'],
    ['a year for each 25 mm', 75, fieldDefault.routine, '2029-05-01'],
    [
      'a fixed time where the practice says so',
      75,
      { ...fieldDefault.routine, time: 'months', months: 30 },
      '2028-11-01',
    ],
  ] as const)('is %s', (_name, caliperMm, routine, day) => {
    expect(followedUntil(plantedOn, { caliperMm }, { ...fieldDefault, routine })).toBe(day);
  });
});
