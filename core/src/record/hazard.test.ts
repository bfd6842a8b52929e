import { rankDecisions } from '../desk';
import { fieldDefault } from '../practice';
import { ground, planting, rec, stock } from '../../testing/water-cases';
import type { Decision } from './decision';
import { openHazards } from './hazard';
import type { HazardFacts } from './hazard-facts';
import { spotLife } from './spot-life';
import { standing } from './record';

const hazard = (change: Partial<HazardFacts> = {}) =>
  rec('hazard', { seenOn: '2026-06-01', hazard: 'branch_hanging', called: '', cordoned: false, note: '', ...change });
const closes = (hazardId: string) =>
  rec('hazard_closed', { closedOn: '2026-06-02', hazardId, reason: 'branch taken down' });
const planted = [ground(), stock(), planting()];
const life = (...more: Parameters<typeof spotLife>[0]) => spotLife([...planted, ...more], { practice: fieldDefault });

describe('a hazard', () => {
  it('makes its tree urgent and stands first, until somebody closes it', () => {
    const seen = hazard();
    const open = life(seen);
    expect(open.level).toBe('urgent');
    expect(open.decisions[0]).toMatchObject({ kind: 'hazard', level: 'urgent', dueOn: '2026-06-01' });
    const after = life(seen, closes(seen.id));
    expect(after.decisions.some(({ kind }) => kind === 'hazard')).toBe(false);
    expect(after.level).not.toBe('urgent');
  });
  it('is closed one by one, and open again where the closing is taken back', () => {
    const [first, second] = [hazard(), hazard({ hazard: 'tree_leaning' })];
    const closing = closes(first.id);
    expect(openHazards([first, second, closing]).map(({ id }) => id)).toEqual([second.id]);
    const back = { ...rec('retraction', { reason: 'it still hangs' }), supersedes: closing.id };
    expect(openHazards(standing([first, second, closing, back])).map(({ id }) => id)).toEqual([first.id, second.id]);
  });
  it('comes before every other decision of any desk, however late and many those are', () => {
    const base: Decision = {
      kind: 'do_remedy',
      stage: 'inspect',
      level: 'urgent',
      dueOn: '2020-01-01',
      remedy: 'water_now',
      because: [],
    };
    const [found] = life(hazard()).decisions;
    if (!found) throw new Error('no hazard');
    const ranked = rankDecisions(
      [
        { ...base, count: 4096 },
        { ...found, count: 1 },
      ],
      '2026-06-01',
    );
    expect(ranked[0]?.decision.kind).toBe('hazard');
  });
});
