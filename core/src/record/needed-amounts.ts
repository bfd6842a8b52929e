import type { WorkNeed } from '../inspect';
import type { Amounts } from '../pit';
import { tieMaterials, type Practice } from '../practice';

/** What is bought for things used up by remedies: ties by the length the practice ties with; trees and soil are not bought here. */
export function amountsOfNeeds(needs: ReadonlyMap<WorkNeed, number>, practice: Practice): Amounts {
  const tie = tieMaterials[practice.staking.tie];
  return {
    stake: needs.get('stakes') ?? 0,
    guard: needs.get('guards') ?? 0,
    mulch: needs.get('mulchL') ?? 0,
    [tie.code]: (needs.get('ties') ?? 0) * tie.perStakeM,
  };
}
