import { needsOf } from '../inspect';
import { fieldDefault, withChoice } from '../practice';
import { amountsOfNeeds } from './needed-amounts';

const batch = (
  remedy: Parameters<typeof needsOf>[0][number]['remedy'],
  count: number,
  mulchL: number | null = null,
) => ({
  remedy,
  count,
  mulchL,
});

it('sums stakes, ties, guards and mulch over batches, mulch by what was measured where it was', () => {
  // Two stakes mended take a stake and a tie each, three ties loosened one each.
  const needs = needsOf([
    batch('mend_stake', 2),
    batch('loosen_tie', 3),
    batch('refit_guard', 4),
    batch('top_up_mulch', 2),
    batch('top_up_mulch', 5, 333),
    batch('refer_arborist', 9),
  ]);
  expect(Object.fromEntries(needs)).toEqual({ stakes: 2, ties: 5, guards: 4, mulchL: 2 * 60 + 333 });
});

it('buys ties by the length the practice ties with', () => {
  const needs = needsOf([batch('loosen_tie', 10)]);
  const by = (tie: 'wide_strap' | 'tube') => amountsOfNeeds(needs, withChoice(fieldDefault, 'staking.tie', tie));
  expect(by('wide_strap')).toEqual({ stake: 0, guard: 0, mulch: 0, tie: 12 });
  expect(by('tube')).toEqual({ stake: 0, guard: 0, mulch: 0, tie_tube: 10 });
  expect(amountsOfNeeds(new Map(), fieldDefault)).toMatchObject({ stake: 0, guard: 0, mulch: 0 });
});
