import { plantingMin, runOfDay, usualDayHours as hours, type RunTeam, type RunTree } from './timetable';

const tree = (n: number, likely: number, change: Partial<RunTree> = {}): RunTree => ({
  spotId: `s${n}`,
  ref: `A-${n}`,
  hours: { likely, low: likely * 0.8, high: likely * 1.5 },
  walkMin: 0,
  doneMin: null,
  ...change,
});
const team = (trees: readonly RunTree[], change: Partial<RunTeam> = {}): RunTeam => ({
  name: 'Team 1',
  strength: 3,
  trees,
  ...change,
});
const run = (one: RunTeam, change: Partial<Parameters<typeof runOfDay>[0]> = {}) => {
  const [first] = runOfDay({ hours, teams: [one], ...change });
  if (!first) throw new Error('no team');
  return first;
};
const kinds = (one: ReturnType<typeof run>) => one.blocks.map(({ kind }) => kind);
// 09:00 and 25 minutes; clean-up begins at 12:30.
const [start, cleanUp] = [9 * 60 + 25, 12 * 60 + 30];

describe('the run of a day', () => {
  it('leaves 170 minutes of four hours for planting', () => {
    expect(plantingMin(hours)).toBe(170);
  });
  it('lays a tree of three person-hours for three people as one hour', () => {
    const one = run(team([tree(1, 3)]));
    expect(kinds(one)).toEqual(['check_in', 'demonstration', 'tree', 'spare', 'clean_up']);
    expect(one.blocks[2]).toMatchObject({
      fromMin: start,
      toMin: start + 60,
      lowToMin: start + 48,
      highToMin: start + 90,
    });
    expect([one.finishMin, one.lateMin, one.cause]).toEqual([start + 60, 0, null]);
  });
  it('rests once half the planting time is over, between two trees', () => {
    const one = run(team([tree(1, 3), tree(2, 3), tree(3, 1)]));
    expect(kinds(one)).toEqual(['check_in', 'demonstration', 'tree', 'tree', 'break', 'tree', 'spare', 'clean_up']);
    expect(one.finishMin).toBe(start + 120 + 15 + 20);
  });
  it('is late by what runs into clean-up, and says that it is too much', () => {
    const one = run(team([tree(1, 5), tree(2, 5)]));
    // 100 min, a break, 100 min: 13:00.
    expect([one.finishMin, one.lateMin, one.cause]).toEqual([start + 215, start + 215 - cleanUp, 'too_much']);
    expect(one.blocks.at(-1)).toMatchObject({ kind: 'clean_up', fromMin: start + 215 });
  });
  it('walks before it plants', () => {
    const one = run(team([tree(1, 3, { walkMin: 6 })]));
    expect(one.blocks[2]).toMatchObject({ kind: 'walk', toMin: start + 6 });
    expect(one.finishMin).toBe(start + 66);
  });
  it('keeps what was planted as it was, and lets the rest follow', () => {
    const one = run(team([tree(1, 3, { doneMin: start + 80 }), tree(2, 3)]));
    expect(one.blocks[2]).toMatchObject({ done: true, toMin: start + 80, highToMin: start + 80 });
    expect(one.blocks[3]).toMatchObject({ done: false, fromMin: start + 80, toMin: start + 140 });
  });
  it('does not call an open tree planted because its time is over', () => {
    const now = start + 100;
    const one = run(team([tree(1, 3), tree(2, 3)]), { nowMin: now });
    expect(one.blocks[2]).toMatchObject({ done: false, toMin: now });
    expect(one.finishMin).toBe(now + 15 + 60);
  });
  it('names what made a team late: behind, stopped, a tool', () => {
    const behind = run(team([tree(1, 3, { doneMin: start + 170 }), tree(2, 3)]));
    expect([behind.lateMin, behind.cause]).toEqual([60, 'behind']);
    const stopped = run(team([tree(1, 5), tree(2, 3)]), { stops: [{ fromMin: start + 30, lengthMin: 40 }] });
    expect([stopped.lateMin, stopped.cause]).toEqual([30, 'stopped']);
    expect(kinds(stopped)).toContain('stopped');
    const tool = run(team([tree(1, 4.2), tree(2, 4.2)], { slowerShare: 0.15 }));
    expect([Math.round(tool.lateMin), tool.cause]).toEqual([23, 'tool']);
  });
  it('goes slower with fewer people: two for three take half as long again', () => {
    expect(run(team([tree(1, 3)], { strength: 2 })).finishMin).toBe(start + 90);
  });
  it.each([
    ['that end before they begin', { endMin: 8 * 60 }],
    ['that begin before people gather', { beginMin: 8 * 60 }],
    ['with a demonstration longer than the day', { demonstrationMin: 300 }],
    ['whose parts leave no room', { cleanUpMin: 220 }],
  ])('refuses hours %s', (_name, change) => {
    expect(() => runOfDay({ hours: { ...hours, ...change }, teams: [] })).toThrow(/must be within/);
  });
});
