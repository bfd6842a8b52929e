import type { PitReasonFacts } from '../pit';
import { bermPlaces, fillMaterials, guardRules, stakeRules } from '../practice';
import { percolationNames, soilNames, stockNames } from './names';
import { months, capital, type Sentences } from './sentence';

export const pitSentences: Sentences<PitReasonFacts> = {
  ball_height_less_surplus: (f, s) =>
    f.surplusMm > 0
      ? `Ball ${s.mm(f.ballHeightMm)} high less ${s.mm(f.surplusMm)} of soil over the topmost roots: ${s.mm(f.effectiveMm)}.`
      : `Topmost roots are at the top of the ball: ${s.mm(f.effectiveMm)} high.`,
  flare_base: (f, s) => `${f.practice}: flare ${s.mm(f.baseMm)} above grade.`,
  flare_heavy_soil: (f, s) => `${capital(soilNames[f.soil])}: + ${s.mm(f.extraMm)}.`,
  flare_stony: (f, s) => `Stony soil: + ${s.mm(f.extraMm)}.`,
  flare_slow: (f, s) => `Percolation test, ${percolationNames[f.percolation]}: + ${s.mm(f.extraMm)}.`,
  flare_larger_allowance_rules: (f, s) => `Allowances do not add up; the largest counts: + ${s.mm(f.extraMm)}.`,
  flare_settlement: (f, s) =>
    `${s.mm(f.fillUnderBallMm)} put back ${f.firmed ? 'and firmed' : 'loose'} under the ball settles ${s.pct(f.sharePct)}: + ${s.mm(f.settlementMm)}.`,
  flare_for_graft: (f, s) =>
    `The graft, ${s.mm(f.graftMm)} above the flare, stands at least ${s.mm(f.leastMm)} above grade: + ${s.mm(f.extraMm)}.`,
  flare_for_later: (f, s) =>
    `${s.mm(f.leftMm)} of surplus stays on the ball and comes off after ${months(f.months)}: + ${s.mm(f.extraMm)}.`,
  graft_above_grade: (f, s) => `Graft union ${s.mm(f.aboveMm)} above grade: keep soil and mulch off it.`,
  flare_percolation_unknown: () => 'No percolation rate yet: slow soil would ask for more.',
  depth_is_ball_less_proud: (f, s) =>
    `${s.mm(f.effectiveMm)} less ${s.mm(f.proudMm)} proud: dig ${s.mm(f.depthMm)} at the uphill edge.`,
  depth_bare_root: (f, s) =>
    `Flare to lowest root ${s.mm(f.rootDepthMm)} less ${s.mm(f.proudMm)} proud: ${s.mm(f.depthMm)}.`,
  downhill_exposure: (f, s) =>
    f.exposureMm > 0
      ? `Ground falls ${s.pct(f.slopePct)}: ${s.mm(f.exposureMm)} over a ball of ${s.mm(f.ballMm)}.`
      : 'Level ground: the same all round.',
  slope_too_steep: (f, s) =>
    `A fall of ${s.pct(f.slopePct)} leaves ${s.mm(Math.max(0, f.downhillDepthMm))} at the downhill edge; at least ${s.mm(f.leastMm)} is needed. Terrace the spot or choose a smaller ball.`,
  strip_under_ball: (f, s) =>
    `The ball, ${s.mm(f.ballMm)}, is wider than the strip, ${s.mm(f.stripWidthMm)}. Choose a smaller ball or widen the strip.`,
  strip_takes: (f, s) =>
    f.stock === 'bare_root'
      ? `The widest roots that fit spread ${s.mm(f.largestMm)}.`
      : `The largest ball that fits is ${s.mm(f.largestMm)} across.`,
  strip_offer: (f, s) =>
    `${f.nursery} offers it ${stockNames[f.stock]}, caliper ${s.mm(f.caliperMm)}, with ${f.stock === 'bare_root' ? 'roots' : 'a ball'} of about ${s.mm(f.ballMm)}.`,
  strip_no_offer: () => 'No stock of the species that is on offer fits.',
  width_times_ball: (f, s) =>
    `${s.n(f.factor, 1)} × the ball of ${s.mm(f.ballMm)}${f.compacted ? ', for compacted ground' : ''}.`,
  width_bare_root: (f, s) => `Root spread ${s.mm(f.spreadMm)} and ${s.mm(f.marginMm)} more.`,
  width_stretched: (f, s) =>
    `The strip allows ${s.mm(f.stripWidthMm)} of ${s.mm(f.fullWidthMm)}: stretched along it to ${s.mm(f.lengthMm)} for the same area.`,
  pit_volume: (f, s) =>
    f.bottomMm < f.topMm
      ? `Sides slope from ${s.mm(f.topMm)} to ${s.mm(f.bottomMm)}, mean depth ${s.mm(f.meanDepthMm)}.`
      : `Sides go straight down, mean depth ${s.mm(f.meanDepthMm)}.`,
  backfill_is_pit_less_ball: (f, s) => `Pit ${s.L(f.pitL)} less ${s.L(f.ballBelowGradeL)} of ball below grade.`,
  amendment_none: () => 'The practice fills with site soil only.',
  amendment_share: (f, s) =>
    `${capital(fillMaterials[f.material].name)}, ${s.pct(f.sharePct)} of the fill by the practice.`,
  amendment_area: (f, s) =>
    `${capital(fillMaterials[f.material].name)}, ${s.pct(f.sharePct)} of the top ${s.mm(f.depthMm)} of a ring ${s.mm(f.ringMm)} across, outside the pit.`,
  amendment_refused: (f) =>
    `${capital(fillMaterials[f.material].name)} holds water against slow soil and fills the pit like a basin: left out.`,
  base_put_back: (f, s) => `The practice digs ${s.mm(f.fillMm)} deeper and puts it back firmed.`,
  flare_ball_share: (f, s) => `${s.pct(f.sharePct)} of the ball's ${s.mm(f.ballHeightMm)}: + ${s.mm(f.extraMm)}.`,
  ball_too_shallow: (f, s) =>
    `The ball is too shallow for this practice: it would stand ${s.mm(Math.max(0, f.depthMm))} deep, at least ${s.mm(f.leastMm)} is needed.`,
  stake_rule: (f) => `By the practice: ${stakeRules[f.rule].name}.`,
  stake_short: (f, s) => `${s.m(f.heightM)} high, under ${s.m(f.underM)} and not exposed: it stands by itself.`,
  stake_bare_root: () => 'Bare roots hold nothing yet.',
  dig_rate: (f, s) =>
    `Digging: ${s.L(f.litresPerH)} a person-hour in ${[f.stony && 'stony', f.compacted && 'compacted', soilNames[f.soil]].filter(Boolean).join(' ')}.`,
  need_guard: (f) => `Trunk guard: ${guardRules[f.rule].name}.`,
  need_tie: (f, s) => `${s.m(f.eachM)} a stake: a figure of eight.`,
  need_buckets: (f, s) => `${s.L(f.litres)} by buckets of ${s.L(f.eachL)}, at most four; used again at the next tree.`,
  need_gypsum_sodium: (f, s) =>
    `Sodium ratio ${s.n(f.sodiumSar, 1)}: clay is sodic from ${s.n(f.sodicFromSar, 1)}.${f.sodiumSar >= f.sodicFromSar ? ` ${s.n(f.kgPerM2, 1)} kg for each m² of pit.` : ' No gypsum.'}`,
  need_gypsum_salt: (f, s) =>
    `Salt ${s.n(f.saltDsM, 1)} dS/m, sodium not tested: clay counts as salty from ${s.n(f.saltyFromDsM, 1)} dS/m.${f.saltDsM >= f.saltyFromDsM ? ` ${s.n(f.kgPerM2, 1)} kg for each m² of pit.` : ' No gypsum.'}`,
  need_gypsum_untested: () => 'Gypsum: clay whose sodium and salt nobody tested. Test the soil first.',
  stake_firm: (f, s) =>
    `A gust turns the tree with about ${s.n(f.overturnNm, 0)} Nm, its ball holds with ${s.n(f.holdNm, 0)} Nm: it stands.`,
  stake_outweighed: (f, s) =>
    `A gust turns the tree with about ${s.n(f.overturnNm, 0)} Nm, its ball holds with only ${s.n(f.holdNm, 0)} Nm.`,
  stake_wind_unknown: () => 'Winds not recorded: taken as open ground; place the stake by what the site shows.',
  stake_under_branch: (f, s) => `Kept under the first branch at ${s.m(f.firstBranchM)}.`,
  stake_no_room: (f, s) =>
    `No stake: a tie could stand ${s.mm(Math.max(0, f.mostMm))} high at most, and under ${s.mm(f.leastMm)} it holds nothing.`,
  stake_along_strip: (f, s) =>
    `The strip, ${s.mm(f.stripWidthMm)}, has no room for a stake beside the ball: along the strip.`,
  stake_off: (f) => `Off after ${f.months} months, before it strangles.`,
  spoil_bulks: (f, s) => `${s.L(f.ballBelowGradeL)} displaced by the ball, bulked ${s.n(f.bulking, 2)} ×.`,
  mulch_ring: (f, s) =>
    `Ring ${s.mm(f.ringMm)} across, ${s.mm(f.thicknessMm)} thick, ${s.mm(f.gapMm)} clear of the trunk${f.lengthMm > f.ringMm ? `, in the strip and ${s.mm(f.lengthMm)} along it, to both ends of the pit` : f.cutByStrip ? ', cut by the strip' : ''}.`,
  mulch_no_room: (f, s) =>
    `No mulch: ${s.mm(f.gapMm)} clear all round the trunk leave nothing of a ring of ${s.mm(f.ringMm)}.`,
  mass_ball_and_top: (f, s) => `Ball as received ${s.kg(f.ballKg)}, stem and crown ${s.kg(f.topKg)}.`,
  lift_people: (f, s) => `Up to ${s.kg(f.limitKg)} for ${f.people === 1 ? 'one person' : `${f.people} people`}.`,
  lift_equipment: (f, s) => `Over ${s.kg(f.limitKg)}: trolley, boards or machine; no lifting by hand.`,
  lift_route_assumed: (f, s) => `Way from the kerb not measured: taken as ${s.m(f.distanceM)}.`,
  stock_kind_not_covered: (f) =>
    `${f.practice} does not cover ${stockNames[f.stock]} stock; choose a practice that does.`,
  wires_over_spot: (f, s) =>
    `Wires ${s.m(f.wireHeightM)} above the spot: no tools or tree within the utility's distance; ask its qualified people.`,
  berm_placed: (f, s) =>
    `${capital(bermPlaces[f.where].name)}, ${s.mm(f.heightMm)} high: holds ${s.L(f.storeL)} over the ${bermPlaces[f.where].at ?? 'ball'}.`,
  berm_by_practice: () => 'The practice builds none.',
  berm_left_out: () => 'No berm in slow soil, by the practice: it would pond and drown the roots.',
  water_slow_soil: () => 'Water less often and only by probe: the ball drowns before it dries.',
  water_fast_soil: () => 'Water more often and less at a time: the dose runs through.',
  percolation_usual: () => 'The practice as it stands; nothing to add for drainage.',
  rock_in_pit: (f, s) =>
    `Rock at ${s.mm(f.rockAtMm)}, the pit goes down ${s.mm(f.depthMm)}: bring a bar, take a flatter ball, or move the spot as far as its ticket allows.`,
};
