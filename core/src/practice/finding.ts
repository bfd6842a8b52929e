import type { Level } from '../reason';
import type { RemedyCode } from './remedy';

/** What was found in one aspect of a tree: how bad, why, and what the practice does about it. */
export interface FindingOf<Aspect extends string, R> {
  readonly aspect: Aspect;
  readonly level: Level;
  readonly because: R;
  readonly remedy: RemedyCode;
}
