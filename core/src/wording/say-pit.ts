import type { PitReasonFacts } from '../pit';
import { bermPlaces, fillMaterials, fillPlaces, guardRules, stakeRules, tieMaterials } from '../practice';
import { compassPoint } from '../units';
import { handsNames, percolationNames, siteThingNames, soilNames, stockNames } from './names';
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
  flare_for_stem_roots: (f, s) =>
    `${f.count} ${f.count === 1 ? 'root' : 'roots'} of the buried stem, up to ${s.mm(f.thickestMm)} thick, ${f.count === 1 ? 'stays' : 'stay'} for now and ${f.count === 1 ? 'is' : 'are'} cut after ${months(f.months)}: + ${s.mm(f.extraMm)}.`,
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
    `${capital(fillMaterials[f.material].name)} ${fillPlaces[f.place].name}: ${s.pct(f.sharePct)} of the fill by the practice, ${s.L(f.litres)}.`,
  amendment_bags: (f, s) =>
    `${capital(fillMaterials[f.material].name)} ${fillPlaces[f.place].name}: ${s.n(f.bags, 1)} ${f.bags === 1 ? 'bag' : 'bags'} of ${s.L(f.bagL)} by the practice, ${s.L(f.litres)}.`,
  amendment_area: (f, s) =>
    `${capital(fillMaterials[f.material].name)} ${fillPlaces[f.place].name}: ${s.pct(f.sharePct)} of the top ${s.mm(f.depthMm)} of a ring ${s.mm(f.ringMm)} across${f.place === 'whole_area' ? ', outside the pit' : ''}, ${s.L(f.litres)}.`,
  amendment_fed_in_autumn: (f) =>
    `${capital(fillMaterials[f.material].name)} holds fertiliser: in autumn it drives growth that frost takes. Left out.`,
  amendment_capped: (f, s) =>
    `No more than ${s.pct(f.mostPct)} of the fill is anything but site soil: ${fillMaterials[f.material].name} cut to ${s.L(f.litres)}.`,
  amendment_acid_on_acid: (f, s) =>
    `Acid on acid: ${fillMaterials[f.material].name}, pH ${s.n(f.phFrom, 1)}–${s.n(f.phTo, 1)}, into soil of pH ${s.n(f.soilPh, 1)}. Take something else.`,
  amendment_alkaline_on_alkaline: (f, s) =>
    `Alkaline on alkaline: ${fillMaterials[f.material].name}, pH ${s.n(f.phFrom, 1)}–${s.n(f.phTo, 1)}, into soil of pH ${s.n(f.soilPh, 1)}. Iron and manganese run short there.`,
  amendment_ph_unknown: (f) => `The pH of ${fillMaterials[f.material].name} is not known: test a bag first.`,
  amendment_dries: (f) =>
    `${capital(fillMaterials[f.material].name)} holds little water, and this soil lets it through: the fill dries sooner.`,
  amendment_fertilised: (f) =>
    `${capital(fillMaterials[f.material].name)} holds fertiliser, whether the bag says so or not: feed nothing else.`,
  soil_moved: (f, s) =>
    `${s.L(f.dugL)} dug${f.cavedL > 0.05 ? ` and ${s.L(f.cavedL)} broken in from the sides` : ''}, ${s.L(f.backL)} back as fill.`,
  soil_built: (f, s) => {
    const parts = [
      [f.moundL, 'drawn up to the ball'],
      [f.bankL, 'into the downhill bank'],
      [f.bermL, 'into the berm'],
    ] as const;
    const said = parts.filter(([litres]) => litres > 0.05).map(([litres, where]) => `${s.L(litres)} ${where}`);
    return said.length > 0 ? `${capital(said.join(', '))}.` : 'Next to nothing is drawn up.';
  },
  soil_bought: (f, s) => `The spoil does not do: ${s.L(f.boughtL)} of topsoil bought.`,
  surface_kept: (f, s) =>
    f.underMm > 0
      ? `By the container's surface: the flare lies ${s.mm(f.underMm)} under it, and stands that much lower. Danger: what was potted too deep is buried for good.`
      : "By the container's surface, where the flare is.",
  surface_refused: (f, s) =>
    `Not by the container's surface: the flare lies ${s.mm(f.underMm)} under it, ${s.mm(f.mostMm)} is the most that is borne here. Found and set by the flare instead.`,
  need_gypsum_always: (f, s) =>
    `Gypsum in all clay by the practice, ${s.n(f.kgPerM2, 1)} kg for each m² of pit; without sodium it opens nothing.`,
  feed_lime_refused: (f, s) =>
    f.soilPh === null
      ? `Lime with rock dust: nobody tested the soil. It is fed under pH ${s.n(f.underPh, 1)} only.`
      : `Lime with rock dust left out: pH ${s.n(f.soilPh, 1)}, it is fed under ${s.n(f.underPh, 1)} only.`,
  guard_thick_bark: (f, s) =>
    `No guard: the trunk is ${s.mm(f.caliperMm)} thick, its bark counts as thin up to ${s.mm(f.untilMm)}.`,
  labour_looking_on: (f, s) =>
    `At the pace of ${handsNames[f.hands]}: ${s.pct(f.sharePct)} of the hours go to showing, watching and waiting.`,
  face_from: (f, s) =>
    `The ${siteThingNames[f.thing]} stands ${s.near(f.distanceM)} away to the ${compassPoint(f.towardsDeg)}: flat side to it, best face and branches to the ${compassPoint(f.bestFaceDeg)}, where there is room.`,
  face_pavement: (f) => `People pass to the ${compassPoint(f.bestFaceDeg)}: best face there.`,
  face_street: (f) => `The street lies to the ${compassPoint(f.bestFaceDeg)}: best face there.`,
  face_sun: (f) => `Branches to the light, to the ${compassPoint(f.bestFaceDeg)}.`,
  face_by_eye: () => 'Which way it looks is not on record: best face to where people see it, branches towards room.',
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
  need_guard: (f, s) =>
    `Trunk guard: ${guardRules[f.rule].name}; bark counts as thin until ${s.mm(f.untilMm)}, the trunk is ${s.mm(f.caliperMm)}. Fitted anew each season until then.`,
  need_tie: (f, s) => {
    const { name, stretch, rub } = tieMaterials[f.tie];
    return `${capital(name)}, ${s.m(f.eachM)} a stake in a figure of eight: stretches ${stretch === 'none' ? 'not at all' : stretch}, rubs ${rub}.`;
  },
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
  spoil_bulks: (f, s) => `${s.L(f.leftL)} left over, bulked ${s.n(f.bulking, 2)} ×.`,
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
