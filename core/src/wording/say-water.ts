import type { WaterReasonFacts } from '../water';
import { dormantWaterings, routineRules } from '../practice';
import { soilNames } from './names';
import { capital, days, type Sentences, sayIsoDay } from './sentence';

const dayGap = (n: string): string => (Number(n) === 1 ? 'day' : `${n.replace(/\.?0+$/, '')} days`);

export const waterSentences: Sentences<WaterReasonFacts> = {
  soak_fill_berm: (f, s) => `The berm filled ${f.times} times, ${s.L(f.storeL)} each.`,
  soak_by_caliper: (f, s) => `${s.L(f.lPer25Mm)} for each ${s.mm(25)} of caliper, ${s.mm(f.caliperMm)}.`,
  soak_fixed: () => 'A fixed volume by the practice.',
  soak_none: () => 'The practice gives none at planting.',
  routine: (f) => `${capital(routineRules[f.rule].name)}.`,
  routine_from_growth: (f, s) => `Nothing before growth begins; then ${s.L(f.perVisitL)} a visit.`,
  routine_slow: (f, s) => `Slow soil: ${s.pct(f.sharePct)} of the visits.`,
  routine_summer: (f, s) => `In summer ${s.L(f.weeklyL)} a week.`,
  routine_dormant: (f) => `In the dormant season: ${dormantWaterings[f.watering].name}.`,
  routine_fast: (f, s) => `Fast soil: ${s.n(f.times, 1)} times the visits, no more at a time.`,
  routine_competition: (f, s) =>
    `Roots of ${f.species || 'another tree'} ${s.near(f.distanceM)} away drink in the pit: ${s.n(f.times, 2)} times the visits, most in drought.`,
  routine_rain: (f, s) => `${s.mm(f.rainMm)} of rain or its equal a week.`,
  routine_wean: (f, s) =>
    `The nursery watered every ${dayGap(s.n(f.everyDays, 2))}: begin so, and double the gap each week for ${s.n(f.weeks)} ${f.weeks === 1 ? 'week' : 'weeks'}, to every ${dayGap(s.n(f.gapDays, 1))}.`,
  routine_came_dry: (f) => `It came dry or uncovered: every ${days(f.everyDays)} in the first ${f.weeks} weeks.`,
  routine_probe: (f) => `The probe is asked every ${days(f.everyDays)}, and decides.`,
  soak_by_depth: (f, s) => `${s.mm(f.depthMm)} of water over the pit's ${s.n(f.pitM2, 2)} m².`,
  soak_leaches: (f, s) =>
    `The water holds salt, ${s.n(f.saltDsM, 1)} dS/m: ${s.pct(f.morePct)} more, so that some runs through and takes it down.`,
  soak_by_ball_store: (f, s) =>
    `${f.doses} × ${s.L(f.doseL)}: what ${f.medium === 'container_mix' ? 'container mix' : 'the nursery soil of the ball'} takes from wilting to saturation.`,
  ball_half_by: (f, s) =>
    `Half of what the tree can drink, ball and soil within reach, is gone by then: about ${s.L(f.perDayL)} a day; the ball holds ${s.L(f.holdsL)}.`,
  ball_half_now: (f, s) => `The ball is at ${s.pct(f.sharePct)} of what it holds, give or take ${s.n(f.errorPct)}.`,
  ball_after_forecast: (f) => `The forecast ends on ${sayIsoDay(f.until)}: from there as last year, without rain.`,
  ball_keeps: (f) => `What the tree can drink does not come down to half within ${days(f.withinDays)}.`,
  ball_not_forecast: () => 'No weather is known ahead.',
  ball_drowned: (f) =>
    `More than half of the ball’s air is filled with water since ${sayIsoDay(f.since)}: roots suffocate.`,
  ball_found_drier: (f, s) =>
    `${sayIsoDay(f.day)}: found at ${s.pct(f.foundPct)} where ${s.pct(f.expectedPct)} was expected. Look whether water misses the ball, or another tree’s roots drink there.`,
  ball_found_wetter: (f, s) =>
    `${sayIsoDay(f.day)}: found at ${s.pct(f.foundPct)} where ${s.pct(f.expectedPct)} was expected. Look for a leak, watering nobody recorded, or a pit that holds water.`,
  device_run_once: () => 'One run alone: nobody knows how it varies. Run it three times.',
  device_runs: (f, s) => `The mean of ${f.runs} runs, which lie ${s.pct(f.spreadPct)} apart.`,
  device_unsteady: (f, s) =>
    `More than ${s.pct(f.mostPct)} apart: look for a kink, air in the line or a vessel that was not level, and run it again.`,
  device_holds: (f, s) =>
    `${f.count} × ${s.L(f.volumeL)}, filled ${f.fills === 1 ? 'once' : `${f.fills} times`} for ${s.L(f.doseL)}.`,
  device_flow_unknown: () => 'Nobody measured how fast it runs, and no label says.',
  device_labelled: (f, s) => `${s.L(f.lPerH)} an hour by its label; measure it before you trust it.`,
  device_measured: (f, s) => `${s.L(f.lPerH)} an hour, measured.`,
  device_label_off: (f, s) => `Its label says ${s.L(f.lPerH)} an hour: it runs ${s.n(f.timesOff, 2)} times that.`,
  device_floods: (f, s) =>
    `It runs faster, ${s.L(f.lPerH)} an hour, than the ground takes down, ${s.L(f.takesLPerH)}: give it in pieces, and stop when water stands.`,
  device_soaks: (f) => `It stands in water for ${f.minutes} min before its first use.`,
  device_glaring: () => 'People see it: expect complaints, and say until when it stays.',
  device_off_after: (f) => `Off after ${f.months} months: bark stays damp below it, and it is outgrown.`,
  device_low_branch: (f, s) =>
    `It needs ${s.mm(f.neededMm)} of trunk without branches; the first is at ${s.mm(f.clearMm)}.`,
  device_steep: (f, s) => `On ${s.pct(f.slopePct)} of slope it empties beside the ball; ${s.pct(f.mostPct)} at most.`,
  device_compacted: () => 'It has to be sunk in, and the ground is compacted.',
  device_ponds: () => 'In slow soil a filled ring stands for days over the roots.',
  restricted_day: (f) =>
    f.nextOn === ''
      ? 'Restrictions allow no watering on any day.'
      : `Restrictions allow no watering on this day; the next is ${sayIsoDay(f.nextOn)}.`,
  restricted_hours: (f) => `Restrictions allow watering from ${f.fromHour}:00 to ${f.untilHour}:00 alone.`,
  device_off: (f) => `${f.name}, set on ${sayIsoDay(f.since)}: it was to come off by now.`,
  hose_places: (f, s) => `${f.places} places: water spreads about ${s.mm(f.spreadMm)} from each.`,
  hose_uphill: (f, s) => `On ${s.pct(f.slopePct)} of slope all of it goes in uphill, and runs down through the ball.`,
  hose_in_turns: (f) =>
    `More than ${f.longestMinutes} min at one place runs off: go round twice, and let it sink in between.`,
  zone_gets: (f, s) => `${f.emitters} ${f.emitters === 1 ? 'emitter' : 'emitters'}: ${s.L(f.runL)} each time.`,
  zone_drowns: (f) =>
    `Stands in water from ${sayIsoDay(f.from)} on, ${days(f.waterloggedDays)} of ${f.days}${f.anywayDays > 0 ? `, ${f.anywayDays} of them without the valve too` : ''}: this programme drowns it.`,
  zone_thirsts: (f) => `Too little: ${days(f.stressDays)} of stress in ${f.days}.`,
  zone_suits: (f) => `Suits it: ${days(f.stressDays)} of stress in ${f.days}.`,
  soak_by_pit_air: (f, s) =>
    `${f.doses} × ${s.L(f.doseL)}: the air ${soilNames[f.soil]} holds around bare roots, filled.`,
  soak_no_berm: () => 'No berm is built here that could be filled.',
  soak_dormant_wet: () => 'Bare-root in slow soil: no soak until growth starts.',
};
