import type { StockReasonFacts } from '../stock';
import { stockNames, wrapKindNames } from './names';
import { type Sentences } from './sentence';

export const stockSentences: Sentences<StockReasonFacts> = {
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
  stock_washed_out: () =>
    'The ball is washed out: loosen the roots and plant at once, as bare-root stock, while it rests.',
  stock_other_name: () => 'The label names another species than was ordered.',
  stock_sign_differs: () => 'The sign that tells the species apart is not there: it may be another one.',
  stock_name_doubt: (f) =>
    f.label === 'as_ordered'
      ? 'The label names the species, the sign does not settle it: ask somebody who knows both.'
      : `${f.label === 'trade' ? 'A trade name may mean two species' : 'Nothing names it'}: look for the sign that tells them apart, or ask the nursery for the botanical name.`,
  stock_name_by_sign: (f) =>
    `${f.label === 'trade' ? 'Only a trade name on the label' : 'No label'}; the sign of the species is there.`,
  stock_stem_roots: (f, s) =>
    `${f.count} ${f.count === 1 ? 'root grows' : 'roots grow'} from the buried stem, up to ${s.mm(f.thickestMm)} thick: cut or kept by the practice, and planted higher where they stay.`,
  unload_people: (f) =>
    `Off the truck: ${f.people === 1 ? 'one hands it down' : `${f.people} hand it down`}, nobody alone on the tail.`,
  unload_machine: (f, s) =>
    `Off the truck by tail lift or machine: ${s.kg(f.massKg)}, and from a height hands hold half as much, ${s.kg(f.limitKg)}.`,
  stock_broken_branches: () => 'Broken branches: pruned at planting.',
};
