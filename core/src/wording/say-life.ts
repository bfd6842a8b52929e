import { structuralPrunings } from '../practice';
import type { LifeReasonFacts } from '../record';
import { lookAspectNames } from './look-names';
import { hazardNames, probeNames } from './names';
import { remedyWords } from './say-remedy';
import { days, lower, months, sayIsoDay, sentence, type Sentences } from './sentence';

export const lifeSentences: Sentences<LifeReasonFacts> = {
  clear_later: (f, s) =>
    `Planted with ${s.mm(f.leftMm)} of surplus on the ball; cleared to the flare ${months(f.months)} after planting.`,
  assessment_missing: () => 'Surroundings not looked at: wires, walls, kerbs, lines, soil for the roots.',
  verdict_missing: () => 'All is measured: plant, plant if, move, or not here?',
  verdict_move: (f) => `To be moved: ${sentence(f.reason)}`,
  verdict_plant_if: (f) => `To be planted once this is done: ${sentence(f.reason)}`,
  species_missing: () => 'No species chosen.',
  stock_missing: () => 'Ball, caliper and topmost roots not measured.',
  ready_to_plant: () => 'Ground and stock are measured and the pit plan stands.',
  stem_roots_later: (f, s) =>
    `${f.count} ${f.count === 1 ? 'root' : 'roots'} of the buried stem stayed, up to ${s.mm(f.thickestMm)} thick: cut after ${months(f.months)}, once the tree has its own.`,
  stubs_later: (f) => `Short branches were kept to thicken the stem: off after ${months(f.months)}.`,
  remedy_unshown: (f) =>
    `Said to be done on ${sayIsoDay(f.doneOn)}; nothing shows it yet: it is closed by what is measured or seen there.`,
  roots_next_season: (f) =>
    `Some of them were cut on ${sayIsoDay(f.cutOn)}; the rest waits ${months(f.months)}, so that the tree is not cut at twice in a season.`,
  established_floor: (f, s) =>
    `Not before ${sayIsoDay(f.on)}: ${s.n(f.monthsPer25Mm, Number.isInteger(f.monthsPer25Mm) ? 0 : 1)} months for each 25 mm of ${s.mm(f.caliperMm)} caliper. A floor, never a proof.`,
  established_caliper_unknown: () => 'Its caliper at planting is not known, so neither is how long it needs.',
  established_growth: (f, s) =>
    `Shoots ${s.mm(f.shootMm)} after ${s.mm(f.beforeMm)} the year before, seen ${sayIsoDay(f.on)}; from ${s.pct(f.sharePct)} of them on it grows as usual, after its first year.`,
  established_growth_unknown: () => 'Shoots of this year and last were never measured.',
  established_firm: () => 'Stands firm without a stake.',
  established_staked: () => 'A stake still stands at it.',
  established_firm_unknown: () => 'Nobody rocked the trunk, or looked for a stake.',
  established_by_soil: (f) =>
    `Felt not dry on ${sayIsoDay(f.on)}, with no watering for ${days(f.days)}: its roots use the soil around.`,
  established_still_dries: (f) => `Dry on ${sayIsoDay(f.on)} without watering: it still lives by its ball.`,
  established_water_unknown: (f) =>
    `Never felt at ball depth ${days(f.days)} after a watering, in its second year or later.`,
  established_clean: (f) => `The last look, ${sayIsoDay(f.on)}, asks for nothing.`,
  established_open: (f) => `Still asked for: ${lower(remedyWords[f.remedy].act)}.`,
  established_no_look: () => 'Nobody has looked at it since it was planted.',
  established_look_old: (f) => `Last looked at on ${sayIsoDay(f.on)}, over a year ago.`,
  established_not_looked: (f) =>
    `The looks up to ${sayIsoDay(f.on)} left out: ${f.missing.map((aspect) => lower(lookAspectNames[aspect])).join(', ')}.`,
  arborist_take_out: (f) => `${f.arborist} said on ${sayIsoDay(f.on)} that it is to be taken out.`,
  warranty_runs: (f) =>
    `The warranty runs until ${sayIsoDay(f.endsOn)}, and this is asked for: ${lower(remedyWords[f.remedy].act)}.`,
  guard_on: (f, s) =>
    `The trunk will be about ${s.mm(f.caliperMm)} thick, its bark counts as thin up to ${s.mm(f.untilMm)}: the guard is on by autumn, before antlers are rubbed.`,
  guard_off: () => 'The season of rubbing is over by late winter; a guard that stays on chafes and hides rot.',
  prune_young: (f) =>
    `Structural pruning ${structuralPrunings[f.rule].name}: from ${months(f.fromMonths)} after planting, every ${months(f.everyMonths)} until the tree is established; ${f.prunedOn ? `last done ${sayIsoDay(f.prunedOn)}` : 'never recorded here'}.`,
  guard_refit: (f, s) =>
    `The trunk will be about ${s.mm(f.caliperMm)} thick, its bark counts as thin up to ${s.mm(f.untilMm)}: the guard is fitted anew each season until then.`,
  planted_twice: (f) =>
    f.firstOn === f.secondOn
      ? `Recorded as planted twice, both on ${sayIsoDay(f.firstOn)}: which record stands?`
      : `Recorded as planted twice, on ${sayIsoDay(f.firstOn)} and on ${sayIsoDay(f.secondOn)}: which record stands?`,
  looks_differ_flare: (f, s) =>
    `Two looks within a day find the flare at ${s.mm(f.firstMm)} and at ${s.mm(f.secondMm)}.`,
  looks_differ_probe: (f) => `Two looks within a day find the ball ${probeNames[f.first]} and ${probeNames[f.second]}.`,
  looks_differ_stake: () => 'Of two looks within a day one finds a stake and the other none.',
  hazard_open: (f) =>
    `${hazardNames[f.hazard]}, seen ${sayIsoDay(f.seenOn)}. ${f.called ? `Called: ${f.called}.` : 'Nobody is called yet.'} ${f.cordoned ? 'Cordoned off.' : 'Not cordoned off.'}`,
  looks_differ_mulch: () =>
    'Of two looks within a day one finds the mulch clear of the trunk and the other heaped on it.',
};
