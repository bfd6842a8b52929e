import type { Reason, ReasonCode, ReasonFacts } from '../record';
import type { UnitSystem } from '../units';
import { daySentences } from './say-day';
import { groundSentences } from './say-ground';
import { inspectSentences } from './say-inspect';
import { lifeSentences } from './say-life';
import { matchSentences } from './say-match';
import { pitSentences } from './say-pit';
import { stockSentences } from './say-stock';
import { waterSentences } from './say-water';
import { sayers, type Say, type Sentences } from './sentence';

/** A stage adds its own here; a code without its sentence does not compile. */
const sentences: Sentences<ReasonFacts> = {
  ...groundSentences,
  ...matchSentences,
  ...stockSentences,
  ...pitSentences,
  ...daySentences,
  ...waterSentences,
  ...inspectSentences,
  ...lifeSentences,
};

/** Every reason there is. */
export const reasonCodes = Object.keys(sentences) as readonly ReasonCode[];

/** A reason as one sentence, in the reader's units. */
export function sayReason(reason: Reason, units: UnitSystem): string {
  const say = sentences[reason.code] as (facts: Reason['facts'], say: Say) => string;
  return say(reason.facts, sayers[units]);
}
