import { clockOf } from '../calendar';
import type { DayReasonFacts } from '../day';
import { capital, days, sayIsoDay, type Sentences } from './sentence';

const clock = (hour: number): string => clockOf(hour * 60);
const spots = (n: number): string => (n === 1 ? '1 spot' : `${n} spots`);
const slower = (pct: number): string => (pct >= 0 ? `${Math.round(pct)} % more` : `${Math.round(-pct)} % less`);

export const daySentences: Sentences<DayReasonFacts> = {
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
  history_unknown: (f) =>
    `Planted by others and taken over from ${f.from} on ${sayIsoDay(f.on)}: how it was planted is not known.`,
  no_plan_to_compare: () => 'No pit plan stands to compare the planting with.',
  soak_sank: (f, s) =>
    [
      f.sankMm > 0 && `Sank ${s.mm(f.sankMm)} in the soak.`,
      f.toppedUpMm > 0 && `Fill beside the ball topped up by ${s.mm(f.toppedUpMm)}.`,
    ]
      .filter(Boolean)
      .join(' '),
  roots_corrected: () => 'Roots of the ball corrected.',
  roots_need_none: () => 'No root of the ball needed a cut.',
  roots_left: () => 'Circling roots were left as they were: they press on the trunk later.',
  met_root_thin: (f, s) =>
    `Roots of a neighbour in the pit up to ${s.mm(f.thickestMm)}, under the limit of ${s.mm(f.limitMm)}.`,
  met_root_kept: (f, s) =>
    `A neighbour’s root of ${s.mm(f.thickestMm)} was met and kept: over ${s.mm(f.limitMm)} nobody cuts it here.`,
  met_root_unsaid: (f, s) =>
    `A neighbour’s root of ${s.mm(f.thickestMm)} was met, over the limit of ${s.mm(f.limitMm)}; nobody said whether it was cut. Ask: a cut one may have held that tree.`,
  met_root_cut: (f, s) =>
    `A neighbour’s root of ${s.mm(f.thickestMm)} was cut, over the limit of ${s.mm(f.limitMm)}: it may hold that tree.`,
  trunk_leans: () => 'The trunk leans, looked at from two sides.',
  mulch_laid: (f, s) => `Mulch ${s.mm(f.depthMm)} deep, ${s.mm(f.leastMm)} to ${s.mm(f.mostMm)} is right.`,
  mulch_laid_deep: (f, s) => `Mulch ${s.mm(f.depthMm)} deep, ${s.mm(f.mostMm)} at most.`,
  mulch_laid_thin: (f, s) => `Mulch ${s.mm(f.depthMm)} deep, ${s.mm(f.leastMm)} at least.`,
  stakes_not_set: () => 'No stake was set, where the practice always stakes.',
  stakes_unasked: (f) => `${f.stakes === 1 ? '1 stake' : `${f.stakes} stakes`} set, where the practice stakes no tree.`,
  weather_thunder: (f, s) =>
    `${clock(f.hour)}: thunder ${s.n(f.km)} km off, nearer than ${s.n(f.limitKm)} km. Everybody under a roof.`,
  weather_heat_stops: (f, s) =>
    `${clock(f.hour)}: feels like ${s.degC(f.feelsC)} in the shade, nobody digs from ${s.degC(f.limitC)}.`,
  weather_heat_breaks: (f, s) =>
    `${clock(f.hour)}: feels like ${s.degC(f.feelsC)} in the shade; short turns, shade and water from ${s.degC(f.limitC)}.`,
  weather_gusts: (f, s) =>
    `${clock(f.hour)}: gusts of ${s.speed(f.gustMs)}, no lifting and no staking from ${s.speed(f.limitMs)}.`,
  weather_heavy_rain: (f, s) =>
    `${clock(f.hour)}: ${s.rain(f.rainMm)} of rain, work stops at ${s.rain(f.limitMm)} in an hour: soil smears and tools slip.`,
  weather_rain: (f, s) => `${clock(f.hour)}: ${s.rain(f.rainMm)} of rain, more than light: slower, and slippery.`,
  weather_frozen: (f, s) => `${clock(f.hour)}: soil at ${s.degC(f.soilC)} is frozen.`,
  weather_fair: () => 'Nothing in the forecast stops work; light rain goes on.',
  weather_not_forecast: (f) => `No forecast for ${f.hours} of its ${f.ofHours} hours yet.`,
  weather_begin_later: (f) =>
    f.toHour === f.fromHour
      ? `What is worse comes after the ${f.neededH} h of work.`
      : `Begin at ${clock(f.toHour)} instead of ${clock(f.fromHour)}: from then on ${f.neededH} h may be worked.`,
  weather_no_run: (f) => `No ${f.neededH} h in a row may be worked before ${clock(f.latestEndHour)}.`,
  ready_no_spots: () => 'No spot is left to plant.',
  ready_covered: (f) => `All ${f.spots} spots may be dug on that day.`,
  ready_uncovered: (f) => `${f.count} of ${f.spots} spots may not be dug on that day: nothing covers them then.`,
  ready_leave: () => 'Owners and road authority have agreed.',
  ready_leave_missing: (f) => `${spots(f.count)} without the consent or the permit it asks for on that day.`,
  ready_stock: (f) => `All ${f.trees} trees are here, measured and accepted.`,
  ready_stock_missing: (f) =>
    `${[
      [f.notHere, 'not here'],
      [f.refused, 'refused'],
      [f.unmeasured, 'not measured'],
    ]
      .filter(([count]) => Number(count) > 0)
      .map(([count, what]) => `${count} ${what}`)
      .join(', ')}.`,
  ready_stock_thirsty: (f) =>
    `${f.count === 1 ? '1 tree' : `${f.count} trees`} held without water for up to ${days(f.days)}: water, and look whether buds and bark live.`,
  ready_plans: () => 'Every tree has its pit plan.',
  ready_no_plan: (f) => `${spots(f.count)} without a pit plan.`,
  ready_people: (f) =>
    `${f.confirmed} of ${f.capacity} places taken; the work asks for about ${f.needed} people in the time there is.`,
  ready_leads_short: (f) => `${f.leads} who lead for ${f.needed} teams.`,
  ready_waivers: (f) => `${f.count} without a signed waiver: they cannot be assigned.`,
  ready_no_teams: () => 'No teams are made.',
  ready_teams: (f) =>
    f.spotsLeft + f.peopleLeft === 0
      ? `${f.teams} teams, every tree and everybody in one.`
      : `${f.teams} teams; without one: ${spots(f.spotsLeft)}, ${f.peopleLeft === 1 ? '1 person' : `${f.peopleLeft} people`}.`,
  ready_tools: (f) => `Enough of all ${f.kinds} kinds of tools.`,
  ready_tools_short: (f) => `Too few tools: ${f.what}.`,
  ready_materials: () => 'All materials are in store.',
  ready_materials_short: (f) => `Short in store: ${f.what}.`,
  ready_cards: (f) =>
    f.changed + f.none === 0
      ? 'Every card says what the plan says.'
      : [
          f.changed > 0 && `${spots(f.changed)} planned otherwise than the printed card says: print anew.`,
          f.none > 0 && `${spots(f.none)} without a printed card.`,
        ]
          .filter(Boolean)
          .join(' '),
  ready_arrangements: () => 'First aid, emergency department, toilets, water, parking and traffic are written down.',
  ready_arrangements_missing: (f) => `Not written down: ${f.what}.`,
  ready_weather: (f) =>
    ({
      go: 'The forecast lets the day go.',
      delay: 'The forecast says to begin later.',
      call_off: 'The forecast says to call the day off.',
      unknown: 'No forecast reaches the day yet.',
    })[f.advice],
  pace_by_rules: () => 'No day was logged yet: the pace is that of the rules of work.',
  pace_learnt: (f) => `${capital(days(f.days))} logged: work took ${slower(f.changePct)} time than the rules say.`,
  pace_heavy_soil: (f) => `In clay and clay loam ${slower(f.changePct)} again.`,
  pace_heavy_stock: (f) => `On heavy trees ${slower(f.changePct)} again.`,
};
