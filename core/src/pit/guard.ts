import { guardRules, type Practice } from '../practice';
import { because, type PitReason } from './reasons';

/** Whether a trunk of this thickness gets a guard, and why; nothing to say where nobody asks for one. */
export function guardOf(
  { guard: rule, guardUntilMm: untilMm }: Practice,
  { rubbed, caliperMm }: { readonly rubbed: boolean; readonly caliperMm: number },
): { readonly needed: boolean; readonly because: readonly PitReason[] } {
  const { when } = guardRules[rule];
  if (!(when === 'always' || (when === 'recorded' && rubbed))) return { needed: false, because: [] };
  const facts = { caliperMm, untilMm };
  if (caliperMm >= untilMm) return { needed: false, because: [because('guard_thick_bark', facts)] };
  return { needed: true, because: [because('need_guard', { rule, ...facts })] };
}
