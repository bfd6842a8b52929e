import type { WaterReasonFacts } from '../water';
import { routineRules } from '../practice';
import { soilNames } from './names';
import { capital, type Sentences } from './sentence';

export const waterSentences: Sentences<WaterReasonFacts> = {
  soak_fill_berm: (f, s) => `The berm filled ${f.times} times, ${s.L(f.storeL)} each.`,
  soak_by_caliper: (f, s) => `${s.L(f.lPer25Mm)} for each ${s.mm(25)} of caliper, ${s.mm(f.caliperMm)}.`,
  soak_fixed: () => 'A fixed volume by the practice.',
  soak_none: () => 'The practice gives none at planting.',
  routine: (f) => `${capital(routineRules[f.rule].name)}.`,
  routine_from_growth: (f, s) => `Nothing before growth begins; then ${s.L(f.perVisitL)} a visit.`,
  routine_slow: (f, s) => `Slow soil: ${s.pct(f.sharePct)} of the visits.`,
  routine_summer: (f, s) => `In summer ${s.L(f.weeklyL)} a week.`,
  routine_dormant: () => 'None in the dormant season.',
  soak_by_ball_store: (f, s) =>
    `${f.doses} × ${s.L(f.doseL)}: what ${f.medium === 'container_mix' ? 'container mix' : 'the nursery soil of the ball'} takes from wilting to saturation.`,
  soak_by_pit_air: (f, s) =>
    `${f.doses} × ${s.L(f.doseL)}: the air ${soilNames[f.soil]} holds around bare roots, filled.`,
  soak_no_berm: () => 'No berm is built here that could be filled.',
  soak_dormant_wet: () => 'Bare-root in slow soil: no soak until growth starts.',
};
