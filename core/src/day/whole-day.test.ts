import { aHelper, readySpot } from '../../testing/day-cases';
import {
  nextTreeFor,
  peopleNeeded,
  readinessOf,
  runOf,
  teamTaskOf,
  toolsOf,
  heatBreaks,
  watchDay,
  type DayHelper,
  type DayTree,
  type KeptDay,
} from './whole-day';
import { defaultWeatherRules } from './weather-watch';
import { plantingMin, usualDayHours as hours } from './timetable';

const tree = (i: number, change: Partial<DayTree> = {}): DayTree => ({
  ...readySpot(`A-${i}`),
  spotId: `s${i}`,
  position: [-25.4, 36.9],
  ruledH: 3,
  heavySoil: false,
  heavyStock: false,
  lifters: 1,
  waterL: 30,
  tool: null,
  doneMin: null,
  ...change,
});
const helper = (id: string, change: Partial<DayHelper> = {}): DayHelper => ({
  ...aHelper(id),
  name: `${id} Somebody`,
  confirmed: true,
  came: false,
  gone: false,
  ...change,
});
const three = [helper('Ann', { skill: 'leads' }), helper('Ben'), helper('Cid')];
const square = (n: number, metres = 0) =>
  Array.from({ length: n }, (_, i) => Array.from({ length: n }, (__, j) => (i === j ? 0 : metres)));
const day = (change: Partial<KeptDay> = {}): KeptDay => {
  const trees = change.trees ?? [tree(1), tree(2)];
  return {
    kind: 'volunteers',
    weather: defaultWeatherRules,
    hours,
    capacity: 10,
    trees,
    helpers: three,
    teams: [],
    walkM: square(trees.length + 1),
    worked: [],
    forecast: [],
    toolsThere: {},
    materialsMissing: [],
    arrangementsMissing: [],
    ...change,
  };
};
const team = (spotIds: string[]) => ({ leadId: 'Ann', helperIds: ['Ann', 'Ben', 'Cid'], spotIds });

/** 34 °C at 50 % feels like more than 32 °C; the hours of the day are 9 to 13. */
const hot = Array.from({ length: 24 }, (_, hour) => ({
  hour,
  rainMm: 0,
  temperatureC: hour >= 11 ? 34 : 24,
  humidityPct: 50,
  gustMs: 3,
  thunderKm: null,
  soilC: 20,
}));

describe('rests in the heat', () => {
  it('end each hour that is so hot, within the time of planting', () => {
    // Planting goes from 9:25 to 12:30: of the hot hours from eleven on only one ends within it.
    expect(heatBreaks(day({ forecast: hot }))).toEqual([{ fromMin: 11 * 60 + 50, lengthMin: 10, kind: 'break' }]);
    const longer = { ...hours, endMin: 15 * 60 };
    expect(heatBreaks(day({ forecast: hot, hours: longer })).map(({ fromMin }) => fromMin)).toEqual([710, 770, 830]);
  });
  it('take their time from the work: more people are needed, teams have less, and the run shows them', () => {
    const [cool, warm] = [day(), day({ forecast: hot })];
    expect(teamTaskOf(warm).minutes).toBe(teamTaskOf(cool).minutes - 10);
    const [run] = runOf({
      ...warm,
      trees: [tree(1, { ruledH: 5 }), tree(2, { ruledH: 5 })],
      teams: [team(['s1', 's2'])],
    });
    expect(run?.blocks.filter(({ kind }) => kind === 'break').map(({ fromMin }) => fromMin)).toContain(710);
  });
  it('are the programme’s to set', () => {
    expect(heatBreaks(day({ forecast: hot, weather: { ...defaultWeatherRules, heatBreakMin: 0 } }))).toEqual([]);
    expect(heatBreaks(day({ forecast: hot, weather: { ...defaultWeatherRules, heatBreaksC: 45 } }))).toEqual([]);
  });
});

describe('a day as it is kept', () => {
  it('asks a contractor’s day neither for people nor teams nor tools, and a hand-out not for materials', () => {
    const topics = (kind: KeptDay['kind']) => readinessOf(day({ kind })).lines.map(({ topic }) => topic);
    const [ours, contractor, handOut] = (['volunteers', 'contractor', 'hand_out'] as const).map(topics);
    expect(ours).toEqual(expect.arrayContaining(['people', 'teams', 'tools', 'materials', 'cover']));
    expect(contractor).toEqual(expect.arrayContaining(['cover', 'leave', 'stock', 'materials']));
    for (const topic of ['people', 'teams', 'tools']) {
      expect(contractor).not.toContain(topic);
      expect(handOut).not.toContain(topic);
    }
    expect(handOut).toContain('cover');
  });
  it('asks for as many people as its hours take in the time there is', () => {
    // Six person-hours in nine tenths of 170 minutes: 2.35 people.
    expect(peopleNeeded(day())).toMatchObject({ people: Math.ceil(6 / ((plantingMin(hours) / 60) * 0.9)), teams: 1 });
    expect(peopleNeeded(day({ trees: [tree(1, { planted: true })] })).people).toBe(0);
  });
  it('gives the search only what is open and who has confirmed and not gone', () => {
    const helpers = [...three, helper('Dan', { confirmed: false }), helper('Eve', { gone: true })];
    const task = teamTaskOf(
      day({ trees: [tree(1, { planted: true }), tree(2), tree(3, { ruledH: 0 })], helpers, walkM: square(4, 140) }),
    );
    expect([task.jobs.map(({ spotId }) => spotId), task.helpers.length]).toEqual([['s2'], 3]);
    // 140 m at 70 m a minute, from the tree to the gathering place.
    expect(task.walkMin).toEqual([
      [0, 2],
      [2, 0],
    ]);
  });
  it('takes longer with a pace that was learnt', () => {
    const slow = Array.from({ length: 40 }, () => ({ ruledH: 10, workedH: 15, heavySoilShare: 0, heavyStockShare: 0 }));
    expect(teamTaskOf(day({ worked: slow })).jobs[0]?.hours).toBeCloseTo(4.5, 1);
  });
  it('lays the run by who is there once people have come', () => {
    const teams = [team(['s1'])];
    const [all] = runOf(day({ teams }));
    const came = [helper('Ann', { skill: 'leads', came: true }), helper('Ben', { came: true }), helper('Cid')];
    const [two] = runOf(day({ teams, helpers: came }));
    const start = hours.beginMin + hours.demonstrationMin;
    expect([(all?.finishMin ?? 0) - start, (two?.finishMin ?? 0) - start]).toEqual([60, 90]);
  });
  it('is late by a team half of which is gone at noon, and says that it is the work and not the tools', () => {
    const teams = [team(['s1', 's2'])];
    const trees = [tree(1, { ruledH: 4 }), tree(2, { ruledH: 4 })];
    const came = three.map((one) => ({ ...one, came: true }));
    const [whole] = runOf(day({ teams, trees, helpers: came }));
    // Eight person-hours: 160 minutes of three, 240 of two, and 185 there are.
    const [half] = runOf(day({ teams, trees, helpers: came.map((one) => ({ ...one, gone: one.id === 'Cid' })) }));
    expect([whole?.lateMin, half?.cause]).toEqual([0, 'too_much']);
    expect(half?.lateMin).toBeGreaterThan(50);
  });
  it('asks tools of its teams, or as the work would be shared out', () => {
    const tool = {
      soil: 'clay' as const,
      stony: false,
      compacted: false,
      kind: 'container' as const,
      cutsWire: false,
      correctsRoots: false,
      stakes: 0,
      carriedBy: 'people' as const,
      atStreet: false,
      materials: {},
    };
    const trees = [tree(1, { tool }), tree(2, { tool })];
    expect(toolsOf(day({ trees, teams: [team(['s1', 's2'])] })).all).toMatchObject({ pick: 1, gloves: 3 });
    expect(toolsOf(day({ trees })).all.pick).toBe(1);
  });
  it('is red where nobody leads, whatever else is right', () => {
    const lines = readinessOf(day({ helpers: [helper('Ben')] })).lines;
    expect(lines.find(({ topic }) => topic === 'people')?.level).toBe('urgent');
  });
  it('knows no weather where nothing is forecast', () => {
    expect(watchDay(day()).advice).toBe('unknown');
  });
});

describe('what an early team does next', () => {
  const trees = [tree(1, { ruledH: 3 }), tree(2, { ruledH: 3 }), tree(3, { ruledH: 12 })];
  it('is the nearest tree that no team has and that fits', () => {
    const walkM = square(4, 70);
    const far = walkM.map((row, i) => row.map((m, j) => (i === 1 || j === 1 ? m * 20 : m)));
    const kept = day({ trees, teams: [team(['s1'])], walkM: far });
    // s2 is 1,400 m off: 20 minutes and an hour still fit; s3 takes four hours.
    expect(nextTreeFor(kept, 0, runOf(kept))).toMatchObject({ spotId: 's2', minutes: 80, fromTeam: null });
  });
  it('is the last tree of a late team where all are taken, and none where nobody is late', () => {
    const others = [helper('Dan', { skill: 'leads' }), helper('Eve')];
    const late = { leadId: 'Dan', helperIds: ['Dan', 'Eve'], spotIds: ['s3', 's2'] };
    const kept = day({ trees, helpers: [...three, ...others], teams: [team(['s1']), late] });
    expect(nextTreeFor(kept, 0, runOf(kept))).toMatchObject({ spotId: 's2', fromTeam: 1 });
    const quick = { ...late, spotIds: ['s2'] };
    const calm = day({ trees: trees.slice(0, 2), helpers: [...three, ...others], teams: [team(['s1']), quick] });
    expect(nextTreeFor(calm, 0, runOf(calm))).toBeNull();
  });
  it('is none where nobody may dig, or nobody can lift it', () => {
    for (const change of [{ cover: 'none' as const }, { lifters: 4 }]) {
      const kept = day({ trees: [tree(1), tree(2, change)], teams: [team(['s1'])] });
      expect(nextTreeFor(kept, 0, runOf(kept))).toBeNull();
    }
  });
});
