import {
  judgeAsBuilt,
  judgeReadiness,
  learnPace,
  watchWeather,
  type AsBuilt,
  type DayReason,
  type HourOfWeather,
  type ReadinessFacts,
} from '../src/day';
import { fieldDefault } from '../src/practice';
import { readySpot } from './day-cases';

const fair = { rainMm: 0, temperatureC: 16, humidityPct: 70, gustMs: 5, thunderKm: null, soilC: 12 };
const bad: Partial<HourOfWeather>[] = [
  {},
  { thunderKm: 4 },
  { temperatureC: 40, humidityPct: 40 },
  { temperatureC: 31, humidityPct: 60 },
  { gustMs: 20 },
  { rainMm: 9 },
  { rainMm: 4 },
  { soilC: -1 },
];

function ofWeather(): DayReason[] {
  const asked = { beginHour: 9, endHour: 13, neededH: 2, latestEndHour: 16 };
  const days = bad.map((change) => Array.from({ length: 24 }, (_, hour) => ({ hour, ...fair, ...change })));
  const late = Array.from({ length: 24 }, (_, hour) => ({ hour, ...fair, gustMs: hour < 11 ? 20 : 5 }));
  return [...days, late, []].flatMap((day) => watchWeather(day, asked).because);
}

function ofReadiness(): DayReason[] {
  const spot = readySpot('A-1');
  const ready: ReadinessFacts = {
    spots: [spot],
    people: { capacity: 9, confirmed: 9, withoutWaiver: 0, leads: 3, needed: 6, leadsNeeded: 2 },
    teams: { teams: 3, spotsLeft: 0, peopleLeft: 0 },
    tools: [],
    materials: [],
    arrangementsMissing: [],
    weather: 'go',
  };
  const wrong: ReadinessFacts = {
    spots: [
      { ...spot, cover: 'none', leaveMissing: true, stock: 'not_here', planned: false, cardChanged: true },
      { ...spot, stock: 'refused', carded: false },
      { ...spot, stock: 'unmeasured', heldDryDays: 9 },
    ],
    people: { capacity: 9, confirmed: 2, withoutWaiver: 1, leads: 1, needed: 6, leadsNeeded: 2 },
    teams: { teams: 2, spotsLeft: 1, peopleLeft: 3 },
    tools: [{ name: 'Pick', needed: 2, there: 1 }],
    materials: [{ name: 'Mulch', missing: '200 L' }],
    arrangementsMissing: ['toilets'],
    weather: 'delay',
  };
  const none = { ...ready, spots: [], teams: { teams: 0, spotsLeft: 0, peopleLeft: 0 }, weather: 'call_off' as const };
  return [ready, wrong, none, { ...ready, weather: 'unknown' as const }].flatMap((facts) =>
    judgeReadiness(facts).lines.flatMap(({ because }) => because),
  );
}

function ofPace(): DayReason[] {
  const day = (workedH: number, heavySoilShare: number, heavyStockShare: number) => ({
    ruledH: 10,
    workedH,
    heavySoilShare,
    heavyStockShare,
  });
  const days = [day(8, 0, 0), day(8, 0, 0), day(20, 1, 0), day(20, 1, 0), day(18, 0, 1), day(18, 0, 1)];
  return [...learnPace([]).because, ...learnPace(days).because];
}

/** What is said of a planting beside its plan: by a practice that asks for it, and by one that does not. */
function ofBuilt(): DayReason[] {
  const good: AsBuilt = { plantedOn: '2026-11-20', flareAboveGradeMm: [40], holeWidthMm: 1125, firstWaterL: 51 };
  const always = { ...fieldDefault, staking: { ...fieldDefault.staking, rule: 'always' as const } };
  const never = { ...fieldDefault, staking: { ...fieldDefault.staking, rule: 'never' as const } };
  const said: Partial<AsBuilt>[] = [
    { flareBeforeSoakMm: [52], toppedUpMm: 20, roots: 'corrected', plumb: 'leans', mulchDepthMm: 75 },
    { roots: 'left', metRoot: { thickestMm: 80, cut: true }, mulchDepthMm: 200 },
    { roots: 'none_needed', metRoot: { thickestMm: 80, cut: false }, mulchDepthMm: 5 },
    { metRoot: { thickestMm: 12, cut: true } },
    { metRoot: { thickestMm: 80 } },
  ];
  return [
    ...said.map((change) => judgeAsBuilt({ ...good, ...change }, undefined, fieldDefault)),
    judgeAsBuilt({ ...good, takenOver: { on: good.plantedOn, from: 'Dock Office' } }, undefined, fieldDefault),
    judgeAsBuilt({ ...good, stakes: 0 }, undefined, always),
    judgeAsBuilt({ ...good, stakes: 2 }, undefined, never),
  ].flatMap(({ findings }) => findings.map(({ because }) => because));
}

/** Each reason a planting day gives, as it comes about. */
export const dayReasons = (): DayReason[] => [...ofWeather(), ...ofReadiness(), ...ofPace(), ...ofBuilt()];
