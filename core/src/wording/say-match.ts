import type { MatchReasonFacts } from '../match';
import { fitPartNames, gradeNames, gradeWords, percolationNames, stockNames } from './names';
import { days, capital, type Sentences } from './sentence';

export const matchSentences: Sentences<MatchReasonFacts> = {
  fit_too_tall: (f, s) => `Grows to ${s.m(f.heightM)}; the wire allows ${s.m(Math.max(0, f.tallestM))}.`,
  fit_no_room: () => 'Not even a small tree keeps the clearances here.',
  fit_too_large: (f, s) => `A ${f.size} tree, ${s.m(f.heightM)} high; the clearances allow a ${f.allows} one.`,
  fit_frost: (f, s) => `Bears ${s.n(f.bearsC)} °C; here it falls to ${s.n(f.lowestC)} °C.`,
  fit_soil_short: (f, s) =>
    `Its crown asks ${s.m3(f.neededM3)} of soil; ${s.m3(f.volumeM3)} is under ${s.pct(f.leastPct)} of that.`,
  fit_drowns: (f) =>
    f.percolation === 'stands' ? 'Water stands here; it drowns.' : 'Water drains slowly here; it bears no wet feet.',
  fit_salt: (f, s) => `Bears ${s.n(f.bearsDsM, 1)} dS/m of salt; ${s.n(f.saltDsM, 1)} was tested.`,
  came_well: () => 'It came covered and moist: out of season it can be planted, with water every few days.',
  came_dry: (f) =>
    `It came ${[f.covered === false && 'uncovered', f.moist === false && 'dry'].filter(Boolean).join(' and ')}: out of season that costs trees. Heel it in, keep it moist, plant it in its window.`,
  came_unasked: () => 'Nobody said whether it came covered and moist: out of season that decides.',
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
};
