import type { Reason, ReasonCode, ReasonFacts } from '../reason';
import { bermPlaces, fillMaterials, guardRules, routineRules, stakeRules } from '../practice';
import { formatNumber, formatQuantity, type UnitSystem } from '../units';
import {
  fitPartNames,
  gradeNames,
  gradeWords,
  percolationNames,
  questionNames,
  siteThingNames,
  soilNames,
  stockNames,
  wrapKindNames,
} from './names';
import { remedyWords } from './say-remedy';

/** Formats a fact in the reader's units. */
interface Say {
  readonly mm: (v: number) => string;
  readonly m: (v: number) => string;
  readonly L: (v: number) => string;
  readonly kg: (v: number) => string;
  readonly pct: (v: number) => string;
  readonly n: (v: number, decimals?: number) => string;
  readonly rate: (v: number) => string;
  readonly near: (v: number) => string;
  readonly m3: (v: number) => string;
}

const sayers: Readonly<Record<UnitSystem, Say>> = { metric: sayIn('metric'), us: sayIn('us') };

function sayIn(units: UnitSystem): Say {
  return {
    mm: (v) => formatQuantity(v, 'lengthMm', units),
    m: (v) => formatQuantity(v, 'heightM', units),
    L: (v) => formatQuantity(v, 'volumeL', units),
    kg: (v) => formatQuantity(v, 'massKg', units),
    pct: (v) => `${formatNumber(v, 0)} %`,
    n: (v, decimals = 0) => formatNumber(v, decimals),
    rate: (v) => formatQuantity(v, 'rateMmPerH', units),
    near: (v) => formatQuantity(v, 'clearanceM', units),
    m3: (v) => formatQuantity(v, 'volumeM3', units),
  };
}

type Sentences = { [C in ReasonCode]: (facts: ReasonFacts[C], say: Say) => string };

const months = (n: number): string => (n === 1 ? '1 month' : `${n} months`);
const days = (n: number): string => (n === 1 ? '1 day' : `${n} days`);

const sentences: Sentences = {
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
  clear_later: (f, s) =>
    `Planted with ${s.mm(f.leftMm)} of surplus on the ball; cleared to the flare ${months(f.months)} after planting.`,
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
  soak_fill_berm: (f, s) => `The berm filled ${f.times} times, ${s.L(f.storeL)} each.`,
  soak_by_caliper: (f, s) => `${s.L(f.lPer25Mm)} for each ${s.mm(25)} of caliper, ${s.mm(f.caliperMm)}.`,
  soak_fixed: () => 'A fixed volume by the practice.',
  soak_none: () => 'The practice gives none at planting.',
  routine: (f) => `${capital(routineRules[f.rule].name)}.`,
  routine_from_growth: (f, s) => `Nothing before growth begins; then ${s.L(f.perVisitL)} a visit.`,
  routine_slow: (f, s) => `Slow soil: ${s.pct(f.sharePct)} of the visits.`,
  routine_summer: (f, s) => `In summer ${s.L(f.weeklyL)} a week.`,
  routine_dormant: () => 'None in the dormant season.',
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
  soak_by_ball_store: (f, s) =>
    `${f.doses} × ${s.L(f.doseL)}: what ${f.medium === 'container_mix' ? 'container mix' : 'the nursery soil of the ball'} takes from wilting to saturation.`,
  soak_by_pit_air: (f, s) =>
    `${f.doses} × ${s.L(f.doseL)}: the air ${soilNames[f.soil]} holds around bare roots, filled.`,
  soak_no_berm: () => 'No berm is built here that could be filled.',
  soak_dormant_wet: () => 'Bare-root in slow soil: no soak until growth starts.',
  mass_ball_and_top: (f, s) => `Ball as received ${s.kg(f.ballKg)}, stem and crown ${s.kg(f.topKg)}.`,
  lift_people: (f, s) => `Up to ${s.kg(f.limitKg)} for ${f.people === 1 ? 'one person' : `${f.people} people`}.`,
  lift_equipment: (f, s) => `Over ${s.kg(f.limitKg)}: trolley, boards or machine; no lifting by hand.`,
  lift_route_assumed: (f, s) => `Way from the kerb not measured: taken as ${s.m(f.distanceM)}.`,
  lift_carry: (f, s) => `${s.kg(f.massKg)} carried ${s.m(f.distanceM)}.`,
  lift_trolley: (f, s) =>
    `${s.kg(f.massKg)} over a fall of ${s.pct(f.slopePct)}: trolley and boards, ${f.people} people to push and hold.`,
  lift_machine: (f, s) =>
    `${s.kg(f.massKg)} over a fall of ${s.pct(f.slopePct)}: by machine; nobody beneath or downhill.`,
  stock_sound: () => 'Nothing found that speaks against it.',
  stock_pot_bound: (f, s) =>
    `Pot-bound: circling roots cover ${s.pct(f.circlingPct)} of the ball, over ${s.pct(f.mostPct)} it goes back.`,
  stock_circling: (f, s) =>
    `Circling roots cover ${s.pct(f.circlingPct)} of the ball: corrected at planting from ${s.pct(f.fromPct)}.`,
  stock_thick_circling: (f, s) =>
    `A circling root ${s.mm(f.rootMm)} thick, over ${s.mm(f.mostMm)}: it cannot be cut without harm.`,
  stock_ball_lost: () => 'The ball crumbles or is washed out: the fine roots are gone.',
  stock_ball_soft: () => 'The ball is soft: hold it moist and look again before planting.',
  stock_no_soil_shows: () => 'No soil shows between the roots: open another and judge the circling again.',
  stock_no_structural: () =>
    'The probe met no structural root: adventitious and fine roots set no depth. Probe again, deeper and nearer the stem.',
  stock_surplus_stays: (f, s) =>
    `${s.mm(f.leftMm)} of the surplus cannot come off now: planted higher, the rest is cleared later.`,
  stock_ball_flat: (f, s) => `Ball ${s.mm(f.ballHeightMm)} high, at least ${s.mm(f.leastMm)} for its width.`,
  stock_one_sided: () => 'Bare on one side: turn its full side to where it is looked at.',
  stock_treated_wrap: () => 'Treated wrap rots slowly: cut it away from the upper ball.',
  stock_ties: (f) =>
    f.ties === 'natural'
      ? 'Ties of natural fibre: cut them at planting.'
      : `Ties, ${wrapKindNames[f.ties]}: all off before planting.`,
  lot_bad: (f, s) => `${f.bad} of ${f.opened} opened ${f.bad === 1 ? 'is' : 'are'} bad, more than ${s.pct(f.mostPct)}.`,
  lot_none_arrived: () => 'None of the lot has arrived.',
  lot_open_all: (f) =>
    `${f.bad === 1 ? 'One bad tree' : `${f.bad} bad trees`} found: open the other ${f.more} before the lot is taken.`,
  lot_open_more: (f) => `Open ${f.more} more: the sample is ${f.open}.`,
  lot_roots_unseen: (f) =>
    f.trees === 1
      ? 'One was opened without a look at its roots: it does not count to the sample.'
      : `${f.trees} were opened without a look at their roots: they do not count to the sample.`,
  lot_sampled: (f, s) =>
    f.opened >= f.arrived
      ? `All ${f.arrived} were opened.`
      : `${f.opened} of ${f.arrived} opened: a bad lot would have shown with ${s.pct(f.surePct)} certainty.`,
  lot_single_bad: (f) => (f.bad === 1 ? 'The bad one goes back.' : `The ${f.bad} bad ones go back.`),
  stock_kinked: () => 'Roots are kinked at the stem: they never straighten.',
  stock_too_deep: (f, s) =>
    `Topmost roots ${s.mm(f.deepMm)} down in a ball of ${s.mm(f.ballHeightMm)}: too little ball is left.`,
  stock_deep: (f, s) => `Topmost roots ${s.mm(f.deepMm)} down: scrape the surplus off before the pit is measured.`,
  stock_wrong_kind: (f) => `It came ${stockNames[f.came]}, ${stockNames[f.ordered]} was ordered.`,
  stock_caliper_short: (f, s) => `Caliper ${s.mm(f.caliperMm)}, ${s.mm(f.orderedMm)} were ordered.`,
  stock_ball_small: (f, s) => `Ball ${s.mm(f.ballMm)}, at least ${s.mm(f.leastMm)} for its caliper.`,
  stock_wounded: () => 'A large wound on the trunk.',
  stock_no_leader: () => 'The leader is lost.',
  stock_split_leader: () => 'Two leaders: one is taken off while young.',
  stock_synthetic_wrap: () => 'Synthetic wrap: it comes off whole, whatever the practice.',
  stock_broken_branches: () => 'Broken branches: pruned at planting.',
  stock_kind_not_covered: (f) =>
    `${f.practice} does not cover ${stockNames[f.stock]} stock; choose a practice that does.`,
  soil_missing: () => 'Soil class not recorded.',
  percolation_missing: () => 'No percolation test.',
  percolation_questioned: (f) => `Percolation test in doubt: ${lower(questionNames[f.question])}.`,
  percolation_unsettled: (f, s) =>
    `Percolation ${s.rate(f.rateMmPerH)} so far, but the falls still change: between ${s.rate(f.lowMmPerH)} and ${s.rate(f.highMmPerH)}. Read on until they agree, or soak and test again.`,
  percolation_stands: (f, s) =>
    `Water stands: ${s.rate(f.rateMmPerH)}. Roots drown; consider another spot or drainage.`,
  wires_over_spot: (f, s) =>
    `Wires ${s.m(f.wireHeightM)} above the spot: no tools or tree within the utility's distance; ask its qualified people.`,
  slope_missing: () => 'Slope not measured.',
  percolation_rate: (f, s) => `Percolation ${s.rate(f.rateMmPerH)}: ${percolationNames[f.class]}.`,
  berm_placed: (f, s) =>
    `${capital(bermPlaces[f.where].name)}, ${s.mm(f.heightMm)} high: holds ${s.L(f.storeL)} over the ${bermPlaces[f.where].at ?? 'ball'}.`,
  berm_by_practice: () => 'The practice builds none.',
  berm_left_out: () => 'No berm in slow soil, by the practice: it would pond and drown the roots.',
  water_slow_soil: () => 'Water less often and only by probe: the ball drowns before it dries.',
  water_fast_soil: () => 'Water more often and less at a time: the dose runs through.',
  percolation_usual: () => 'The practice as it stands; nothing to add for drainage.',
  presoak_short: (f) =>
    `Soaked ${Math.round(f.minutes)} min before the first reading, ${f.leastMin} min are asked for: dry ground drinks faster than it drains.`,
  site_unmeasured: (f) => `Distance to the ${siteThingNames[f.thing]} not measured.`,
  site_clear: (f, s) =>
    `${capital(siteThingNames[f.thing])} ${s.near(f.distanceM)} away, ${s.near(f.leastM)} is enough for any tree.`,
  site_allows: (f, s) =>
    `${capital(siteThingNames[f.thing])} ${s.near(f.distanceM)} away: room for a ${f.size} tree; a ${f.next} one asks ${s.near(f.leastM)}.`,
  site_too_near: (f, s) =>
    f.thing === 'junction'
      ? `Stands in the sight triangle of the junction: it reaches ${s.near(f.leastM)} along both kerbs, the place is in at ${s.near(f.distanceM)}.`
      : `${capital(siteThingNames[f.thing])} ${s.near(f.distanceM)} away; even a small tree asks ${s.near(f.leastM)}.`,
  wire_unmeasured: () => 'Nobody has looked up for wires.',
  wire_none: () => 'No wire overhead.',
  wire_limits_height: (f, s) =>
    `Wire ${s.m(f.wireHeightM)} up less ${s.m(f.headroomM)} headroom: ${s.m(f.tallestM)} of mature height at most. Work near conductors is for the utility's qualified people.`,
  wire_beside: (f, s) =>
    `Wire ${s.m(f.wireHeightM)} up, ${s.near(f.distanceM)} beside the place: a ${f.size} tree passes it, up to ${s.m(f.tallestM)}; a ${f.next} one asks ${s.near(f.leastM)}. Work near conductors is for the utility's qualified people.`,
  wire_too_low: (f, s) =>
    `Wire ${s.m(f.wireHeightM)} up leaves ${s.m(Math.max(0, f.tallestM))} of mature height: no tree stays under that. Ask the utility's qualified people.`,
  strip_unmeasured: () => 'Room for the pit not measured.',
  strip_wide: (f, s) => `Strip ${s.mm(f.stripWidthMm)} wide, ${s.mm(f.leastMm)} is enough for any tree.`,
  strip_allows: (f, s) =>
    `Strip ${s.mm(f.stripWidthMm)} wide: room for a ${f.size} tree; a ${f.next} one asks ${s.mm(f.leastMm)}.`,
  strip_too_narrow: (f, s) => `Strip ${s.mm(f.stripWidthMm)} wide; even a small tree asks ${s.mm(f.leastMm)}.`,
  soil_volume_unknown: () => 'Soil the roots can reach not measured.',
  soil_volume: (f, s) => `${s.m3(f.volumeM3)} of soil carries a crown up to ${s.m(f.widestM)} wide.`,
  soil_volume_short: (f, s) =>
    `${s.m3(f.volumeM3)} of soil; the smallest crown asks ${s.m3(f.neededM3)}. Open more soil or build rooting space under the paving.`,
  ground_compacted: (f, s) =>
    f.stopsMm === null
      ? 'Compacted: loosen it wider than the pit before planting.'
      : `The hand probe stops at ${s.mm(f.stopsMm)}, ${s.mm(f.leastMm)} is asked for: loosen it wider than the pit before planting.`,
  building_planned: () => 'A building is planned here.',
  private_lines_unasked: () => 'Nobody has asked about private lines: irrigation, low-voltage cable, drains.',
  private_lines_found: () => 'Private lines are here: have the owner show and mark them, then measure the distance.',
  salt_high: (f, s) =>
    `Salt ${s.n(f.saltDsM, 1)} dS/m${f.testedOn ? `, tested ${f.testedOn}` : ''}, over ${s.n(f.mostDsM, 1)}: leach or exchange the soil first.`,
  rock_in_pit: (f, s) =>
    `Rock at ${s.mm(f.rockAtMm)}, the pit goes down ${s.mm(f.depthMm)}: bring a bar, take a flatter ball, or move the spot as far as its ticket allows.`,
  ticket_room: (f, s) =>
    f.roomM > 0
      ? `Rock or a root: the spot may move ${s.m(f.roomM)} and still be covered; further asks for a new ticket.`
      : 'The spot stands at the edge of the ticket: moved at all, it asks for a new one.',
  rock_shallow: (f, s) => `Rock at ${s.mm(f.rockAtMm)}; a ball asks ${s.mm(f.leastMm)}.`,
  sun_short: (f, s) =>
    `${s.n(f.sunHours, 1)} h of sun on midsummer day, under ${s.n(f.leastH, 1)}: only trees that bear shade.`,
  owner_unknown: () => 'Whose ground it is is not recorded.',
  owner_consent_needed: () => 'Yard: the owner has to consent in writing before planting.',
  road_permit_needed: () => "Street: the road authority's permit is needed before planting.",
  assessment_missing: () => 'Surroundings not looked at: wires, walls, kerbs, lines, soil for the roots.',
  verdict_missing: () => 'All is measured: plant, plant if, move, or not here?',
  verdict_move: (f) => `To be moved: ${sentence(f.reason)}`,
  verdict_plant_if: (f) => `To be planted once this is done: ${sentence(f.reason)}`,
  ticket_withdrawn: () => 'The ticket was withdrawn.',
  ticket_unsent: () => 'The locate centre has not taken the ticket yet.',
  ticket_expired: (f) => `The ticket ended on ${f.validUntil}, ${days(f.days)} before.`,
  ticket_conflict: (f) => `${f.utilities}: a line in the dig area is in conflict. Settle it with them; nobody digs.`,
  ticket_waits: (f) => `Replies open: ${f.utilities || 'all'}. Digging from ${f.validFrom} at the earliest.`,
  ticket_reply_missing: (f) =>
    `Reply missing from ${f.utilities || 'every utility'}, due by ${f.validFrom}: no reply is not a yes.`,
  ticket_not_yet: (f) => `All replies are in; digging from ${f.validFrom}.`,
  ticket_valid: (f) => `Every utility replied; valid until ${f.validUntil}.`,
  ticket_renew: (f) =>
    `Valid until ${f.validUntil}, ${f.workingDays === 1 ? '1 working day' : `${f.workingDays} working days`} left: renew now.`,
  hand_dig_zone: (f, s) => `Marked lines: dig by hand within ${s.mm(f.toleranceMm)} either side.`,
  clearance_attached: (f) => `Lawful clearance: ${sentence(f.document)} By ${f.clearedBy}, until ${f.validUntil}.`,
  no_ticket: (f) => `No locate ticket covers this spot; for this day one has to be raised by ${f.raiseBy}.`,
  species_missing: () => 'No species chosen.',
  fit_too_tall: (f, s) => `Grows to ${s.m(f.heightM)}; the wire allows ${s.m(Math.max(0, f.tallestM))}.`,
  fit_no_room: () => 'Not even a small tree keeps the clearances here.',
  fit_too_large: (f, s) => `A ${f.size} tree, ${s.m(f.heightM)} high; the clearances allow a ${f.allows} one.`,
  fit_frost: (f, s) => `Bears ${s.n(f.bearsC)} °C; here it falls to ${s.n(f.lowestC)} °C.`,
  fit_soil_short: (f, s) =>
    `Its crown asks ${s.m3(f.neededM3)} of soil; ${s.m3(f.volumeM3)} is under ${s.pct(f.leastPct)} of that.`,
  fit_drowns: (f) =>
    f.percolation === 'stands' ? 'Water stands here; it drowns.' : 'Water drains slowly here; it bears no wet feet.',
  fit_salt: (f, s) => `Bears ${s.n(f.bearsDsM, 1)} dS/m of salt; ${s.n(f.saltDsM, 1)} was tested.`,
  fit_ph: (f, s) => `Asks pH ${s.n(f.min, 1)} to ${s.n(f.max, 1)}; ${s.n(f.ph, 1)} was tested.`,
  fit_shade: (f, s) => `Asks ${s.n(f.askedH)} h of sun; the spot has ${s.n(f.sunHours, 1)} h.`,
  fit_thorns: () => 'Has thorns; neighbours asked for none.',
  fit_toxic: () => 'Poisonous; neighbours asked for nothing poisonous.',
  fit_unknown: (f) => `${capital(fitPartNames[f.part])}: not measured, counts half.`,
  fit_soil: (f, s) => `${s.m3(f.volumeM3)} of soil for the ${s.m3(f.neededM3)} its crown asks.`,
  fit_water: (f) =>
    `Percolation ${percolationNames[f.percolation]}${f.dry ? `, dry summers: bears drought ${gradeWords[f.drought]}` : ''}${f.percolation === 'slow' ? `, bears wet feet ${f.wet === 'yes' ? 'for weeks' : 'for days'}` : ''}.`,
  fit_chemistry: (f, s) =>
    `Soil: ${[
      f.ph === null ? '' : `pH ${s.n(f.ph, 1)} for ${s.n(f.min, 1)} to ${s.n(f.max, 1)}`,
      f.saltDsM === null ? '' : `salt ${s.n(f.saltDsM, 1)} of ${s.n(f.bearsDsM, 1)} dS/m`,
    ]
      .filter((part) => part !== '')
      .join(', ')}.`,
  fit_light: (f, s) =>
    f.askedH === 0
      ? `${s.n(f.sunHours, 1)} h of sun; bears shade.`
      : `${s.n(f.sunHours, 1)} h of sun for the ${s.n(f.askedH)} h it asks.`,
  fit_wind: (f) => `Place ${f.wind}; stands firm in wind ${gradeWords[f.windFirm]}.`,
  fit_paving: (f, s) =>
    `${f.stripWidthMm === 'open' ? 'Open lawn' : `Strip ${s.mm(f.stripWidthMm)} wide`}; root pressure on paving ${gradeNames[f.roots]}.`,
  fit_upkeep: (f) => `Litter ${gradeNames[f.litter]}, pollen ${gradeNames[f.pollen]}.`,
  fit_no_wishes: () => 'Neighbours asked for nothing in particular.',
  fit_wishes: (f) => `Meets ${f.met} of ${f.asked} wishes of the neighbours.`,
  fit_shade_given: (f, s) => `Crown ${s.m(f.spreadM)} wide where ${s.m(f.wideM)} would fill the place.`,
  fit_nature: (f) =>
    `${f.native ? 'Native' : 'Not native'}; pollinators ${gradeNames[f.pollinators]}, birds ${gradeNames[f.birds]}.`,
  window_open: (f) => `Within the planting season of ${stockNames[f.stock]} stock.`,
  window_closed: (f) =>
    f.stock === 'container'
      ? 'Outside the planting season: container stock only with water every few days.'
      : `Outside the planting season of ${stockNames[f.stock]} stock.`,
  forecast_frost: (f, s) => `Forecast down to ${s.n(f.coldC)} °C: wait until the ground is free of frost.`,
  forecast_heat: (f, s) => `Forecast up to ${s.n(f.warmC)} °C: fine roots dry while they are handled.`,
  forecast_rain: (f, s) => `Forecast: ${s.n(f.rainMm)} mm of rain in ${days(f.days)}, no frost, no heat.`,
  stock_missing: () => 'Ball, caliper and topmost roots not measured.',
  ready_to_plant: () => 'Ground and stock are measured and the pit plan stands.',
  flare_as_planned: (f, s) =>
    `Flare ${s.mm(f.actualMm)} above grade, planned ${s.mm(f.plannedMm)} ± ${s.mm(f.toleranceMm)}.`,
  flare_below_grade: (f, s) => `Flare ${s.mm(-f.actualMm)} below grade, planned ${s.mm(f.plannedMm)} above.`,
  flare_lower_than_plan: (f, s) =>
    `Flare ${s.mm(f.plannedMm - f.actualMm)} lower than planned (${s.mm(f.actualMm)} for ${s.mm(f.plannedMm)}); it will settle further.`,
  flare_higher_than_plan: (f, s) =>
    `Flare ${s.mm(f.actualMm - f.plannedMm)} higher than planned (${s.mm(f.actualMm)} for ${s.mm(f.plannedMm)}): it dries sooner.`,
  flare_uneven: (f, s) =>
    `Flare heights differ by ${s.mm(f.spreadMm)} around the trunk; up to ${s.mm(f.limitMm)} is expected.`,
  hole_as_planned: (f, s) => `Hole ${s.mm(f.actualMm)} wide, planned ${s.mm(f.plannedMm)}.`,
  hole_narrow: (f, s) => `Hole ${s.mm(f.actualMm)} wide, planned ${s.mm(f.plannedMm)}, at least ${s.mm(f.leastMm)}.`,
  first_water_given: (f, s) => `First water ${s.L(f.actualL)}, planned ${s.L(f.plannedL)}.`,
  first_water_short: (f, s) => `First water ${s.L(f.actualL)}, ${s.L(f.missingL)} short of ${s.L(f.plannedL)}.`,
  first_water_unasked: (f, s) => `First water ${s.L(f.actualL)} where the plan asks for none.`,
  no_plan_to_compare: () => 'No pit plan stands to compare the planting with.',
  flare_visible: (f, s) =>
    f.depthMm <= 0 ? 'Flare visible at the surface.' : `Flare ${s.mm(f.depthMm)} deep, under ${s.mm(f.limitMm)}.`,
  flare_covered: (f, s) => `Flare ${s.mm(f.depthMm)} deep; clear from ${s.mm(f.limitMm)}.`,
  flare_buried: (f, s) => `Flare ${s.mm(f.depthMm)} deep; roots are examined from ${s.mm(f.limitMm)}.`,
  flare_deep: (f, s) =>
    `Flare ${s.mm(f.depthMm)} deep, over ${s.mm(f.limitMm)}; planted ${months(f.monthsSincePlanting)} ago, lifting is open for ${months(f.replantMonths)}.`,
  flare_exposed: (f, s) => `Flare stands ${s.mm(f.aboveMm)} clear of the soil: fine roots dry.`,
  mulch_in_range: (f, s) =>
    `Mulch ${s.mm(f.depthMm)}, within ${s.mm(f.minMm)} to ${s.mm(f.maxMm)}, clear of the trunk.`,
  mulch_thin: (f, s) => `Mulch ${s.mm(f.depthMm)}, under ${s.mm(f.minMm)}.`,
  mulch_thick: (f, s) => `Mulch ${s.mm(f.depthMm)}, over ${s.mm(f.maxMm)}.`,
  mulch_touching: () => 'Mulch touches the trunk: bark stays wet.',
  mulch_heaped: () => 'Mulch is heaped on the trunk: bark rots and rodents shelter.',
  stake_none: () => 'No stake, the tree stands.',
  stake_in_place: (f) =>
    `Stake in place and loose, ${months(f.monthsSincePlanting)} after planting; off after ${months(f.offAfterMonths)}.`,
  stake_overdue: (f) =>
    `Still staked ${months(f.monthsSincePlanting)} after planting; off after ${months(f.offAfterMonths)}.`,
  stake_tight: () => 'The tie is tight.',
  stake_biting: () => 'The tie bites into the bark and will strangle the stem.',
  stake_broken: () => 'The stake is broken or leans on the tree.',
  probe_good: () => 'Moist at ball depth.',
  probe_slightly_dry: () => 'Drying at ball depth.',
  probe_dry: () => 'Dry at ball depth.',
  probe_wet: () => 'Wet at ball depth.',
  probe_saturated: (f) =>
    f.percolation === 'unknown'
      ? 'Waterlogged at ball depth; percolation not known.'
      : `Waterlogged at ball depth; percolation test: ${percolationNames[f.percolation]}.`,
  roots_none_circling: () => 'No circling roots seen on the roots exposed.',
  roots_pressing: (f, s) =>
    `Roots press on ${s.n(f.sharePct, 1)} % of the trunk, under ${s.pct(f.limitPct)}; thickest ${s.mm(f.thickestMm)}.`,
  roots_staged: (f, s) =>
    `Roots press on ${s.n(f.sharePct, 1)} % of the trunk, ${s.n(f.limitPct)} to ${s.pct(f.toPct)}; thickest ${s.mm(f.thickestMm)}. At most ${s.pct(f.capPct)} of the root area in one season.`,
  roots_past_correction: (f, s) =>
    `Roots press on ${s.n(f.sharePct, 1)} % of the trunk, over ${s.pct(f.limitPct)}; correction seldom succeeds.`,
  roots_thick: (f, s) => `A circling root is ${s.mm(f.thickestMm)} thick, over ${s.mm(f.limitMm)}.`,
  look_scheduled: (f) => `Scheduled look ${months(f.monthAfterPlanting)} after planting.`,
  look_follow_up: (f) => `Look again in ${days(f.inDays)} after: ${lower(remedyWords[f.remedy].act)}.`,
  look_yearly: () => 'Yearly look until established.',
};

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
/** Words somebody typed, as a sentence of their own. */
const sentence = (text: string): string => (/[.?…]$/.test(text.trim()) ? text.trim() : `${text.trim()}.`);
const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** Every reason there is. */
export const reasonCodes = Object.keys(sentences) as readonly ReasonCode[];

/** A reason as one sentence, in the reader's units. */
export function sayReason(reason: Reason, units: UnitSystem): string {
  const say = sentences[reason.code] as (facts: Reason['facts'], say: Say) => string;
  return say(reason.facts, sayers[units]);
}
