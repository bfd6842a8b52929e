import type { GroundFacts } from '../ground';
import { fieldDefault, withChoice, type ChoiceValue } from '../practice';
import { container, openLoam as ground } from '../../testing/checked-case';
import { defaultLabourRates, type LabourTask } from './labour';
import { plantingPlan } from './planting-plan';
import { defaultWorkRules } from './work-rules';

/** Short enough to stand by itself. */
const stock = { ...container, heightM: 2 };

const labour = (
  change: Partial<GroundFacts> = {},
  made: Readonly<Record<string, ChoiceValue>> = {},
  rates = defaultLabourRates,
) => {
  const practice = Object.entries(made).reduce((one, [path, value]) => withChoice(one, path, value), fieldDefault);
  const plan = plantingPlan({
    work: { ...defaultWorkRules, labour: rates },
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
    ['pitWidth.sides', 'broken_down', 'dig', 0.75],
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
  it('counts soil dug deeper twice: out, and back in firmed', () => {
    const [plain, deeper] = [labour(), labour({}, { 'pitWidth.base': 'dug_deeper' })];
    expect(minutes(deeper, 'dig')).toBeGreaterThan(minutes(plain, 'dig'));
    expect(minutes(deeper, 'fill')).toBeGreaterThan(minutes(plain, 'fill'));
  });
  it('says how fast is dug, and in what', () => {
    // 300 L an hour in loam, 0.6 of it among stones.
    const facts = { soil: 'loam', stony: true, compacted: false, litresPerH: 180 };
    expect(labour({ stony: true }).because).toEqual([{ code: 'dig_rate', facts }]);
  });
  it('follows the rates a programme has measured', () => {
    const fast = { ...defaultLabourRates, digLPerH: { ...defaultLabourRates.digLPerH, loam: 600 } };
    expect(minutes(labour({}, {}, fast), 'dig')).toBeCloseTo(minutes(labour(), 'dig') / 2, 6);
  });
});
