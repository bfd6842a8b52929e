import { judgeHour, runOfDay, usualDayHours as hours, type RunTeam } from '../day';
import { dayRun } from './day-run';
import type { Shape } from './shapes';

const team = (trees: number, hoursEach: number, doneMin: number | null = null): RunTeam => ({
  name: '1 Bento',
  strength: 3,
  trees: Array.from({ length: trees }, (_, i) => ({
    spotId: `s${i}`,
    ref: `A-${i}`,
    hours: { likely: hoursEach, low: hoursEach, high: hoursEach * 1.4 },
    walkMin: 0,
    doneMin: i === 0 ? doneMin : null,
  })),
});
const draw = (teams: readonly RunTeam[], nowMin: number | null = null) =>
  dayRun({ hours, runs: runOfDay({ hours, teams, nowMin }), weather: [], nowMin, widthPx: 800 });
const widthOf = (shape: Shape) =>
  shape.kind === 'polygon' ? Math.max(...shape.points.map(([x]) => x)) - Math.min(...shape.points.map(([x]) => x)) : 0;

describe('the drawing of a day', () => {
  it('draws a tree of twice the hours twice as long', () => {
    const [one] = draw([team(1, 2)]).shapes.filter(({ role }) => role === 'run_tree');
    const [two] = draw([team(1, 4)]).shapes.filter(({ role }) => role === 'run_tree');
    if (!one || !two) throw new Error('no tree');
    // One pixel parts it from the next.
    expect((widthOf(two) + 1) / (widthOf(one) + 1)).toBeCloseTo(2, 6);
  });
  it('tells late teams and why in words', () => {
    expect(draw([team(3, 5)]).description).toMatch(
      /^1 teams; the last, 1 Bento, is done at 14:40\. Late: 1 Bento by 130 min, more trees than hours\.$/,
    );
    expect(draw([]).description).toBe('No teams yet.');
  });
  it('marks what is planted otherwise than what is open, and shades hours that stop work', () => {
    const roles = draw([team(2, 2, hours.beginMin + 60)], hours.beginMin + 70).shapes.map(({ role }) => role);
    expect(roles).toEqual(expect.arrayContaining(['run_done', 'run_tree', 'run_now']));
    const storm = judgeHour({
      hour: 10,
      rainMm: 0,
      temperatureC: 15,
      humidityPct: 60,
      gustMs: 3,
      thunderKm: 2,
      soilC: 10,
    });
    const shaded = dayRun({ hours, runs: [], weather: [storm], nowMin: null, widthPx: 800 });
    expect(shaded.shapes.some(({ role }) => role === 'run_weather')).toBe(true);
  });
  it('stays within its width', () => {
    for (const shape of draw([team(4, 6)]).shapes) {
      if (shape.kind !== 'polygon') continue;
      for (const [x] of shape.points) expect(x).toBeLessThanOrEqual(800);
    }
  });
});
