import type { InspectReasonFacts } from '../inspect';
import { lastFoundNames, leftOnNames, lookSignNames, twigHeightNames } from './look-names';
import { percolationNames } from './names';
import { remedyWords } from './say-remedy';
import { months, days, lower, sayIsoDay, type Say, type Sentences } from './sentence';

const roots = (n: number): string => (n === 1 ? '1 root' : `${n} roots`);

/** Of a flare that is to be laid open, the bowl. */
const bowl = (f: { readonly bowlL: number; readonly bowlMm: number }, s: Say): string =>
  `A bowl ${s.mm(f.bowlMm)} across, about ${s.L(f.bowlL)} of soil.`;

export const inspectSentences: Sentences<InspectReasonFacts> = {
  flare_visible: (f, s) =>
    f.depthMm <= 0 ? 'Flare visible at the surface.' : `Flare ${s.mm(f.depthMm)} deep, under ${s.mm(f.limitMm)}.`,
  flare_covered: (f, s) => `Flare ${s.mm(f.depthMm)} deep; clear from ${s.mm(f.limitMm)}. ${bowl(f, s)}`,
  flare_buried: (f, s) => `Flare ${s.mm(f.depthMm)} deep; roots are examined from ${s.mm(f.limitMm)}. ${bowl(f, s)}`,
  flare_deep: (f, s) =>
    `Flare ${s.mm(f.depthMm)} deep, over ${s.mm(f.limitMm)}; planted ${months(f.monthsSincePlanting)} ago, lifting is open for ${months(f.replantMonths)}.`,
  flare_exposed: (f, s) => `Flare stands ${s.mm(f.aboveMm)} clear of the soil: fine roots dry.`,
  mulch_in_range: (f, s) =>
    `Mulch ${s.mm(f.depthMm)}, within ${s.mm(f.minMm)} to ${s.mm(f.maxMm)}, clear of the trunk.`,
  mulch_thin: (f, s) => `Mulch ${s.mm(f.depthMm)}, under ${s.mm(f.minMm)}: about ${s.L(f.addL)} to add over its ring.`,
  mulch_thick: (f, s) => `Mulch ${s.mm(f.depthMm)}, over ${s.mm(f.maxMm)}: about ${s.L(f.offL)} to take off its ring.`,
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
  finger_dry: () => 'A finger finds the top of the ball dry: water soon, or probe deeper first.',
  finger_moist: () => 'A finger finds the top of the ball moist; only a probe tells of its base.',
  look_first_weeks: (f) => `In the first ${f.weeks} weeks looked at every ${days(f.everyDays)}.`,
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
  roots_touching: (f) => `${roots(f.count)} touch the trunk: they press once both have thickened.`,
  roots_clear: (f) => `${roots(f.count)} cross or circle, clear of the trunk.`,
  roots_grown_in: (f, s) =>
    `${roots(f.count)} grown into the trunk; ${s.n(f.sharePct, 1)} % of it is pressed. Not for the crew.`,
  anchors_none: () => 'No root runs away from the trunk as far as it is exposed: nothing shows what holds it.',
  anchors_one_sided: (f) =>
    `${roots(f.count)} hold it, none over ${Math.round(f.gapDeg)}° of the compass: root cuts are weighed with care.`,
  anchors_around: (f) => `${roots(f.count)} hold it, the widest gap ${Math.round(f.gapDeg)}°.`,
  wood_green: () => 'Green under the bark.',
  wood_dry_waits: (f) =>
    `Dry under the bark ${months(f.monthsSincePlanting)} after planting; waited for until ${months(f.waitMonths)} are round.`,
  wood_dry: (f) => `Dry under the bark ${months(f.monthsSincePlanting)} after planting.`,
  wood_brittle: () => 'Wood dry and brittle at every height: it is dead.',
  wood_dry_above: (f) =>
    `Dry ${twigHeightNames[f.height]}, green below it, ${months(f.monthsSincePlanting)} after planting; waited for until ${months(f.waitMonths)} are round.`,
  wood_dead_above: (f) => `Dead ${twigHeightNames[f.height]}, green below it: it lives on from there.`,
  wood_dead_below: () => 'Dead bark below green wood: something cuts it off from its roots.',
  roots_in_danger: (f, s) =>
    `Seen: ${lookSignNames[f.sign]}. Fenced ${s.m(f.radiusM)} round the trunk at least, ${f.times} times its ${s.mm(f.caliperMm)}, and out to the drip line.`,
  signs_none: () => 'Nothing to be seen on crown and trunk.',
  sign_seen: (f) => `Seen: ${lookSignNames[f.sign]}.`,
  sign_waits: (f) =>
    `Seen: ${lookSignNames[f.sign]}. Usual in the first year, ${months(f.monthsSincePlanting)} of ${f.waitMonths} are gone.`,
  dieback: (f, s) => `${s.pct(f.sharePct)} of the crown is dead; from ${s.pct(f.limitPct)} on an arborist looks.`,
  shoots_short: (f, s) => `Shoots of ${s.mm(f.shootMm)}, last year ${s.mm(f.beforeMm)}: under half.`,
  shoots_normal: (f, s) => `Shoots of ${s.mm(f.shootMm)}, last year ${s.mm(f.beforeMm)}.`,
  stands_firm: () => 'Rocked by hand the ball does not move.',
  ball_moves: () => 'Rocked by hand the ball moves in the soil: new roots tear.',
  guard_fits: () => 'The guard fits.',
  guard_tight: () => 'The guard is tight or rubs.',
  guard_damaged: () => 'The guard is damaged.',
  left_on: (f) => `Still on the tree: ${leftOnNames[f.thing]}.`,
  nothing_left_on: () => 'Nothing is left on that should be off.',
  turf_clear: () => 'The ring is free of grass.',
  turf_creeping: () => 'Grass creeps into the ring: it drinks before the tree does.',
  flare_guessed: () => 'The depth of the flare is guessed: scrape to the first root to know it.',
  bark_sound: () => 'Bark below the old line of the soil is sound.',
  bark_unsound: (f, s) =>
    `Bark below the old line is soft or cracked over ${s.pct(f.sharePct)} of the girth; from ${s.pct(f.limitPct)} on an arborist looks.`,
  bark_decayed: (f, s) => `Bark below the old line is decayed over ${s.pct(f.sharePct)} of the girth.`,
  look_scheduled: (f) => `Scheduled look ${months(f.monthAfterPlanting)} after planting.`,
  look_found: (f, s) => `${lastFoundNames[f.found]}: ${s.pct(f.pct)}.`,
  look_late: (f, s) => `${days(f.days)} past its look: × ${s.n(f.times, 2)}.`,
  look_balance: (f, s) =>
    `${f.balance === 'dry' ? 'Its balance asks for water' : 'Its ball stands in water by its balance'}: × ${s.n(f.times, 2)}.`,
  look_cohort: (f, s) =>
    `Of ${f.trees} of its species planted in its season ${f.troubled} ask for something: × ${s.n(f.times, 2)}.`,
  look_storm: (f, s) =>
    `Gusts of ${s.speed(f.gustMs)} on ${sayIsoDay(f.on)}, after its last look: × ${s.n(f.times, 2)}.`,
  look_ice: (f, s) =>
    `Ice of ${s.mm(f.iceMm)} on crowns on ${sayIsoDay(f.on)}, after its last look: × ${s.n(f.times, 2)}.`,
  look_worth: (f, s) =>
    `${s.n(f.lossPct, 1)} % × ${s.pct(f.savedPct)} saved by a look × ${s.n(f.cost)} for another tree: worth ${s.n(f.value, 1)}.`,
  look_spring_flare: (f) =>
    `In spring, for ${f.years === 1 ? 'its first year' : `its first ${f.years} years`}: what winter left on the flare is cleared.`,
  look_hand_over: (f) =>
    `Taken over from ${f.from} on ${sayIsoDay(f.on)}: looked at whole, since what was before is not known.`,
  look_told: (f) => `A resident told on ${sayIsoDay(f.on)}, “${f.words}”.`,
  look_warranty: (f) => `The warranty ends on ${sayIsoDay(f.endsOn)}: what is wrong is found before.`,
  look_roots: (f) => `Its first roots are uncovered by hand: not seen for ${f.years} years.`,
  look_after_remedy: (f) =>
    `Looked at again ${days(f.inDays)} after it was done on ${sayIsoDay(f.doneOn)}: ${lower(remedyWords[f.remedy].act)}.`,
  look_follow_up: (f) => `Look again in ${days(f.inDays)} after: ${lower(remedyWords[f.remedy].act)}.`,
  look_yearly: () => 'Yearly look until established.',
};
