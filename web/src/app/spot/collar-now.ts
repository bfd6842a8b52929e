import { cutByCrew, isPressing, stagedCuts, type CirclingRoot, type SpotLife } from '@sombra/core';
import { limitsOf } from '../collar/collar-roots';

/** Roots at the collar of a tree by now, and which of them this season's plan cuts; `null` where nobody saw any. */
export function collarNow(
  life: SpotLife | null,
): { readonly roots: readonly CirclingRoot[]; readonly cuts: readonly number[] } | null {
  const roots = life?.collar?.look.circlingRoots ?? [];
  if (!life?.collar || roots.length === 0) return null;
  if (!cutByCrew(life.collar.verdict) || !roots.some(isPressing)) return { roots, cuts: [] };
  const anchors = life.collar.look.anchors ?? [];
  const plan = stagedCuts({ roots, anchors, ...limitsOf(life.care.inspection.roots) });
  return { roots, cuts: plan.seasons[0]?.cuts.map(({ root }) => root) ?? [] };
}
