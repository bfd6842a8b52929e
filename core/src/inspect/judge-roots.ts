import { girdlingRules, type Practice } from '../practice';
import { finding, type LookFinding } from './finding';
import type { Inspection } from './look';
import { because } from './reasons';
import { compressedSharePct, isPressing, widestGapDeg, type CirclingRoot } from './root-arcs';

/** Without a root to hold it over half of the compass a tree may go with the wind. Degrees, an estimate */
const oneSidedDeg = 180;

/** Roots that circle, and those that hold it. */
export function judgeRoots(look: Inspection, practice: Practice): LookFinding[] {
  return [...judgeCircling(look, practice), ...judgeAnchors(look)];
}

function judgeCircling({ circlingRoots }: Inspection, practice: Practice): LookFinding[] {
  if (circlingRoots === null) return [];
  const pressing = circlingRoots.filter(isPressing);
  if (pressing.length > 0) return [judgePressing(pressing, practice)];
  const touching = circlingRoots.filter(({ touch }) => touch === 'touching').length;
  if (touching > 0) return [finding('roots', 'watch', because('roots_touching', { count: touching }), 'cut_root')];
  if (circlingRoots.length > 0) {
    return [finding('roots', 'good', because('roots_clear', { count: circlingRoots.length }))];
  }
  return [finding('roots', 'good', because('roots_none_circling', {}))];
}

function judgePressing(pressing: readonly CirclingRoot[], practice: Practice): LookFinding {
  const rules = practice.inspection.roots;
  const sharePct = compressedSharePct(pressing.map((root) => root.arc));
  const thickestMm = Math.max(...pressing.map((root) => root.diameterMm));
  if (sharePct > rules.referOverPct) {
    const facts = { sharePct, thickestMm, limitPct: rules.referOverPct };
    return finding('roots', 'urgent', because('roots_past_correction', facts), 'refer_arborist');
  }
  if (thickestMm > rules.referRootOverMm) {
    const facts = { thickestMm, limitMm: rules.referRootOverMm };
    return finding('roots', 'act', because('roots_thick', facts), 'refer_arborist');
  }
  const grownIn = pressing.filter(({ touch }) => touch === 'grown_in').length;
  if (grownIn > 0) {
    return finding('roots', 'act', because('roots_grown_in', { count: grownIn, sharePct }), 'refer_arborist');
  }
  if (sharePct >= rules.stagedFromPct) {
    const { stagedFromPct: limitPct, referOverPct: toPct, seasonCapPct: capPct } = rules;
    const facts = { sharePct, thickestMm, limitPct, toPct, capPct };
    return finding('roots', 'act', because('roots_staged', facts), girdlingRules[rules.rule].heavy);
  }
  const facts = { sharePct, thickestMm, limitPct: rules.stagedFromPct };
  return finding('roots', 'act', because('roots_pressing', facts), girdlingRules[rules.rule].light);
}

function judgeAnchors({ anchors }: Inspection): LookFinding[] {
  if (anchors === undefined) return [];
  const gapDeg = widestGapDeg(anchors);
  if (gapDeg === null) return [finding('roots', 'act', because('anchors_none', {}), 'refer_arborist')];
  const facts = { count: anchors.length, gapDeg };
  return gapDeg > oneSidedDeg
    ? [finding('roots', 'watch', because('anchors_one_sided', facts))]
    : [finding('roots', 'good', because('anchors_around', facts))];
}
