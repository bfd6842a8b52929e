import type { GroundFacts } from '../ground';
import { fieldDefault, withChoice, type ChoiceValue } from '../practice';
import { container, openLoam as ground } from '../../testing/checked-case';
import { defaultLabourRules, type LabourRates, type LabourTask } from './labour';

const usual = defaultLabourRules.volunteers;
import { plantingPlan } from './planting-plan';
import { defaultWorkRules } from './work-rules';

/** Short enough to stand by itself. */
const stock = { ...container, heightM: 2 };

const labour = (
  change: Partial<GroundFacts> = {},
  made: Readonly<Record<string, ChoiceValue>> = {},
  rates: LabourRates = usual,
) => {
  const practice = Object.entries(made).reduce((one, [path, value]) => withChoice(one, path, value), fieldDefault);
  const plan = plantingPlan({
    work: { ...defaultWorkRules, labour: { ...defaultLabourRules, volunteers: rates } },
    practice,
    stock,
    ground: { ...ground, ...change },
    assessment: null,
  });
  if (plan.kind === 'no_plan') throw new Error('no plan');
  return plan.labour;
};
const minutes = (of: ReturnType<typeof labour>, task: LabourTask) =>
  of.tasks.find((one) => one.task === task)?.minutes ?? 0;

describe('labour', () => {
  it('is the sum of its tasks: 209.85 L of loam at 300 L an hour are 42 minutes of digging', () => {
    const { tasks, hours } = labour();
    expect(minutes(labour(), 'dig')).toBeCloseTo(41.97, 2);
    expect(hours * 60).toBeCloseTo(
      tasks.reduce((sum, one) => sum + one.minutes, 0),
      9,
    );
    // No stake under 2.5 m: no minute for one.
    expect(tasks.map(({ task }) => task)).not.toContain('stake');
  });
  it.each([
    ['stones', { stony: true }, 1 / 0.6],
    ['compacted ground', { compacted: true }, 1 / 0.65],
  ] as const)('goes slower in %s', (_name, change, factor) => {
    // The same hole: width in compacted ground is the practice's, so it is kept equal here.
    const same = { 'pitWidth.ballFactorCompacted': 2.5, 'flareAboveGrade.stonyExtraMm': 0 };
    expect(minutes(labour(change, same), 'dig')).toBeCloseTo(minutes(labour({}, same), 'dig') * factor, 6);
  });
  it.each([
    ['backfill.settling', 'water', 'fill', 0.8],
    ['backfill.settling', 'heel', 'fill', 1.2],
    ['roots.correction', 'wash', 'roots', 3],
  ] as const)('%s = %s: %s takes %d times as long', (path, value, task, factor) => {
    const before = labour({}, { 'roots.correction': 'shave' });
    expect(minutes(labour({}, { 'roots.correction': 'shave', [path]: value }), task)).toBeCloseTo(
      minutes(before, task) * factor,
      6,
    );
  });
  it('digs an area over once, in half the time to dig it out, and takes two minutes for each feed', () => {
    const area = {
      'backfill.material': 'coarse_compost',
      'backfill.share': 0.2,
      'backfill.place': 'whole_area',
      'backfill.second.material': 'bark_fines',
      'backfill.second.share': 0.1,
      'backfill.second.place': 'whole_area',
      'mulch.leastRingDiameterMm': 2400,
    };
    // π/4 · (2.4² − 1.125²) m², 200 mm deep: 705.95 L.
    const turnedL = (Math.PI / 4) * (2.4 ** 2 - 1.125 ** 2) * 200;
    const wide = { 'mulch.leastRingDiameterMm': 2400 };
    expect(minutes(labour({}, area), 'dig') - minutes(labour({}, wide), 'dig')).toBeCloseTo(
      (turnedL / 2 / 300) * 60,
      6,
    );
    const fed = labour({}, { 'backfill.feeds.base': 'phosphate', 'backfill.feeds.drench': 'root_drench' });
    expect([minutes(fed, 'feed'), minutes(labour(), 'feed')]).toEqual([4, 0]);
  });
  it('counts soil dug deeper twice: out, and back in firmed', () => {
    const [plain, deeper] = [labour(), labour({}, { 'pitWidth.base': 'dug_deeper' })];
    expect(minutes(deeper, 'dig')).toBeGreaterThan(minutes(plain, 'dig'));
    expect(minutes(deeper, 'fill')).toBeGreaterThan(minutes(plain, 'fill'));
  });
  it('says how fast is dug, and in what', () => {
    // 300 L an hour in loam, 0.6 of it among stones.
    const facts = { soil: 'loam', stony: true, compacted: false, litresPerH: 180 };
    expect(labour({ stony: true }).because[0]).toEqual({ code: 'dig_rate', facts });
  });
  it('meets the pace that is known: three volunteers, three container trees, about three hours', () => {
    // Within a quarter of an hour for each: what the three do together on one tree is one hour.
    const threeTrees = 3 * labour().hours;
    expect(Math.abs(threeTrees / 3 - 3)).toBeLessThan(0.25);
  });
  it('gives crews and volunteers a pace of their own', () => {
    const by = (hands: 'crews' | 'volunteers') => {
      const work = { ...defaultWorkRules, labour: { ...defaultLabourRules, hands } };
      const plan = plantingPlan({ work, practice: fieldDefault, stock, ground, assessment: null });
      return plan.kind === 'plan' ? plan.labour : null;
    };
    expect(by('crews')?.hours).toBeLessThan((by('volunteers')?.hours ?? 0) * 0.85);
    expect(by('crews')?.because[1]).toEqual({ code: 'labour_looking_on', facts: { hands: 'crews', sharePct: 10 } });
  });
  it('counts what goes with it: turf by the ring, the way by its carriers, a quarter of all hours looking on', () => {
    // Ten minutes for each of π/4 · 1.2² m².
    expect(minutes(labour(), 'turf')).toBeCloseTo(10 * (Math.PI / 4) * 1.44, 6);
    const { tasks, hours } = labour();
    const looking = tasks.find(({ task }) => task === 'look_on')?.minutes ?? 0;
    expect(looking / (hours * 60)).toBeCloseTo(0.25, 9);
  });
  it('saves digging where the sides are broken in, and filling too: what falls in is the fill', () => {
    const sides = (value: string) => labour({}, { 'pitWidth.sides': value });
    // 750 mm wide and 300 deep: 132.54 L are dug of 209.85, and 77.31 L broken in at 0.3 of the time.
    expect(minutes(sides('broken_down'), 'dig')).toBeCloseTo(((132.54 + 0.3 * 77.31) / 300) * 60, 1);
    expect(minutes(sides('sloped'), 'fill') - minutes(sides('broken_down'), 'fill')).toBeCloseTo((77.31 / 700) * 60, 1);
  });
  it('follows the rates a programme has measured', () => {
    const fast = { ...usual, digLPerH: { ...usual.digLPerH, loam: 600 } };
    expect(minutes(labour({}, {}, fast), 'dig')).toBeCloseTo(minutes(labour(), 'dig') / 2, 6);
  });
});
