import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { KeptRules, Problem, Rules } from '@sombra/contract';
import {
  fitPartNames,
  fitParts,
  handsKinds,
  handsNames,
  lastFoundKinds,
  lastFoundNames,
  materialCodes,
  materials,
  siteThingNames,
  siteThings,
  sizeClasses,
  sizeNames,
  soilClasses,
  soilNames,
  windExposures,
  windNames,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { GroundService } from './ground.service';
import { DraftsService } from '../offline/drafts.service';
import { SessionService } from '../session/session.service';
import { textOf, tickOf } from '../fields/event-values';

interface NumberRule {
  readonly path: string;
  readonly name: string;
  readonly unit: string;
}

const groundNumbers: readonly NumberRule[] = [
  { path: 'ground.smallToM', name: 'Small trees grow up to', unit: 'm' },
  { path: 'ground.mediumToM', name: 'Medium trees grow up to', unit: 'm' },
  { path: 'ground.wireHeadroomM', name: 'Headroom under a wire', unit: 'm' },
  { path: 'ground.soilM3PerCrownM2', name: 'Soil for each m² of mature crown', unit: 'm³' },
  { path: 'ground.soilDepthMm.assumed', name: 'Soil depth where not measured', unit: 'mm' },
  { path: 'ground.soilDepthMm.most', name: 'Soil depth that counts at most', unit: 'mm' },
  { path: 'ground.probeStopsMm', name: 'A hand probe should enter', unit: 'mm' },
  { path: 'ground.rockLeastMm', name: 'Rock no nearer to the surface than', unit: 'mm' },
  { path: 'ground.saltMostDsM', name: 'Salt at most', unit: 'dS/m' },
  { path: 'ground.sunLeastH', name: 'Sun on midsummer day at least', unit: 'h' },
  { path: 'ground.presoakMin', name: 'Soak before a percolation test', unit: 'min' },
];
const ticketNumbers: readonly NumberRule[] = [
  { path: 'ground.ticket.leadWorkingDays', name: 'Raise ahead of digging', unit: 'working days' },
  { path: 'ground.ticket.validDays', name: 'A ticket is valid for', unit: 'days' },
  { path: 'ground.ticket.renewWorkingDays', name: 'Ask for renewal before its end', unit: 'working days' },
  { path: 'ground.ticket.toleranceMm', name: 'Dig by hand either side of a mark', unit: 'mm' },
  { path: 'ground.ticket.digRadiusM', name: 'Dig area around a spot, radius', unit: 'm' },
];
const matchNumbers: readonly NumberRule[] = [
  { path: 'match.diversity.speciesPct', name: 'One species at most', unit: '% of all trees' },
  { path: 'match.diversity.genusPct', name: 'One genus at most', unit: '% of all trees' },
  { path: 'match.diversity.familyPct', name: 'One family at most', unit: '% of all trees' },
  { path: 'match.climate.lowestC', name: 'Coldest night in twenty years', unit: '°C' },
  { path: 'match.leastSoilShare', name: 'Leave out a species with less soil than', unit: 'share of its need' },
  { path: 'match.leastFit', name: 'Leave out a species that fits less than', unit: 'of 1' },
];

const paceNumbers: readonly NumberRule[] = [
  ...soilClasses.map((soil) => ({
    path: `digLPerH.${soil}`,
    name: `One person digs in ${soilNames[soil]}`,
    unit: 'L an hour',
  })),
  { path: 'stonyShare', name: 'Of that among stones', unit: 'times' },
  { path: 'compactedShare', name: 'Of that in compacted ground', unit: 'times' },
  { path: 'fillLPerH', name: 'Fills and settles', unit: 'L an hour' },
  { path: 'mulchLPerH', name: 'Spreads mulch', unit: 'L an hour' },
  { path: 'waterLPerH', name: 'Gives water', unit: 'L an hour' },
  { path: 'placeMin', name: 'Places and plumbs a tree in', unit: 'min' },
  { path: 'placeMinPer10Kg', name: 'and more for each 10 kg', unit: 'min' },
  { path: 'stakeMin', name: 'Sets and ties a stake in', unit: 'min' },
  { path: 'bermMin', name: 'Builds a berm in', unit: 'min' },
  { path: 'guardMin', name: 'Puts a guard on in', unit: 'min' },
  { path: 'drainMin', name: 'Bores a drain hole in', unit: 'min' },
  { path: 'caveShare', name: 'Breaks sides in, of the time to dig them', unit: 'times' },
  { path: 'turnShare', name: 'Digs ground over where it lies, of the time to dig it', unit: 'times' },
  { path: 'feedMin', name: 'Measures out a feed or gypsum in', unit: 'min' },
  { path: 'markMin', name: 'Reads the ticket and marks out in', unit: 'min' },
  { path: 'turfMinPerM2', name: 'Lifts a square metre of turf in', unit: 'min' },
  { path: 'openMin', name: 'Takes container, ties and tags off in', unit: 'min' },
  { path: 'pruneMin', name: 'Prunes in', unit: 'min' },
  { path: 'carryMinPer10M', name: 'Carries ten metres and comes back in', unit: 'min' },
  { path: 'carryGearMin', name: 'Gets trolley or machine ready in', unit: 'min' },
  { path: 'labelMin', name: 'Labels, photographs and records in', unit: 'min' },
  { path: 'lookOnShare', name: 'Of all hours, looks on and waits', unit: 'share' },
];
const labourNumbers = handsKinds.map((hands) => ({
  hands,
  name: handsNames[hands],
  numbers: paceNumbers.map(({ path, ...rest }) => ({ path: `work.labour.${hands}.${path}`, ...rest })),
}));
const standNumbers: readonly NumberRule[] = [
  ...windExposures.map((exposure) => ({
    path: `work.wind.gustMs.${exposure}`,
    name: `Gust of a year, ${windNames[exposure]}`,
    unit: 'm/s',
  })),
  { path: 'work.wind.crownDrag', name: 'Drag of a crown in leaf', unit: 'of its area' },
  { path: 'work.wind.fillHelps', name: 'A ball in its fill holds', unit: 'times its weight' },
  { path: 'work.soilTest.sodicFromSar', name: 'Clay is sodic from', unit: 'SAR' },
  { path: 'work.soilTest.limeUnderPh', name: 'Lime is fed to soil under', unit: 'pH' },
  { path: 'work.soilTest.saltyFromDsM', name: 'Clay is salty, sodium not tested, from', unit: 'dS/m' },
];
const packNumbers: readonly NumberRule[] = materialCodes
  .filter((code) => code !== 'water')
  .map((code) => ({
    path: `work.packs.${code}`,
    name: `${materials[code].name}, by the ${materials[code].pack.word}`,
    unit: materials[code].unit === 'piece' ? 'pieces' : materials[code].unit,
  }));
const wateringNumbers: readonly NumberRule[] = [
  { path: 'watering.fromHour', name: 'Watering allowed from', unit: 'o’clock' },
  { path: 'watering.untilHour', name: 'until; before it began: over midnight', unit: 'o’clock' },
];
const lookNumbers: readonly NumberRule[] = [
  ...lastFoundKinds.map((found) => ({
    path: `looks.lossPct.${found}`,
    name: `Lost within a year, of those ${lastFoundNames[found].toLowerCase()}`,
    unit: '%',
  })),
  { path: 'looks.savedPct', name: 'of these saved by a look in time', unit: '%' },
  { path: 'looks.replacementCost', name: 'Another tree, planted and watered until it stands', unit: 'money' },
  { path: 'looks.balanceTimes', name: 'Likelier where its balance dries out or drowns', unit: '×' },
  { path: 'looks.cohortTimes', name: 'where its species of its season is in trouble', unit: '×' },
  { path: 'looks.cohortPct', name: 'in trouble from', unit: '%' },
  { path: 'looks.cohortLeast', name: 'of at least', unit: 'trees' },
  { path: 'looks.stormTimes', name: 'after a storm, while it is young', unit: '×' },
  { path: 'looks.stormGustMs', name: 'a storm from gusts of', unit: 'm/s' },
  { path: 'looks.stormIceMm', name: 'or from ice round twigs of', unit: 'mm' },
  { path: 'looks.minutesPerLook', name: 'A look takes', unit: 'min' },
  { path: 'looks.walkKmPerH', name: 'walking between them at', unit: 'km/h' },
];
const wateringTicks: readonly (readonly [string, string])[] = [
  ['watering.days.mon', 'Mondays'],
  ['watering.days.tue', 'Tuesdays'],
  ['watering.days.wed', 'Wednesdays'],
  ['watering.days.thu', 'Thursdays'],
  ['watering.days.fri', 'Fridays'],
  ['watering.days.sat', 'Saturdays'],
  ['watering.days.sun', 'Sundays'],
  ['watering.handFree', 'By hand from a vessel, at any time'],
];
const climateTicks: readonly (readonly [string, string])[] = [
  ['match.climate.drySummers', 'Summers are dry'],
  ['match.climate.hotSummers', 'Summers are hot'],
];
const weatherNumbers: readonly NumberRule[] = [
  { path: 'weather.thunderKm', name: 'Thunder nearer than this stops work', unit: 'km' },
  { path: 'weather.afterThunderMin', name: 'Nobody goes out after the last thunder for', unit: 'min' },
  { path: 'weather.heatBreaksC', name: 'Rests in the shade from a heat index of', unit: '°C' },
  { path: 'weather.heatBreakMin', name: 'Rest in each hour that hot', unit: 'min' },
  { path: 'weather.heatStopC', name: 'Nobody digs from a heat index of', unit: '°C' },
  { path: 'weather.gustStopMs', name: 'No lifting and staking from gusts of', unit: 'm/s' },
  { path: 'weather.lightRainMm', name: 'Rain that goes on all the same, up to', unit: 'mm an hour' },
  { path: 'weather.rainStopMm', name: 'Rain that stops work, from', unit: 'mm an hour' },
  { path: 'weather.frozenSoilC', name: 'Soil is frozen at', unit: '°C' },
];
const draftName = 'rules';

/** The programme's rules for places, species and work: shipped sensible, edited by the administrator, local codes above them. */
@Component({
  selector: 's-rules-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet, StateNote],
  templateUrl: './rules-page.html',
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
    }
    .columns {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(24rem, 100%), 1fr));
      gap: 0 2.5rem;
    }
    input {
      width: 6rem;
      min-height: 38px;
      text-align: right;
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: var(--ink);
      padding: 0 0.4rem;
    }
    table td {
      vertical-align: middle;
    }
    input.wrong {
      border: 2px solid var(--urgent);
    }
    input[type='checkbox'],
    input[type='radio'] {
      width: 1.25rem;
      min-height: 1.25rem;
    }
    .hands {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem 1.2rem;
      legend {
        font-size: 1rem;
        margin: 0;
      }
      label {
        display: inline-flex;
        gap: 0.5rem;
        align-items: center;
        min-height: 44px;
      }
    }
    .rule {
      display: grid;
      grid-template-columns: minmax(6rem, 1fr) auto minmax(2.5rem, 8rem);
      gap: 0.6rem;
      align-items: center;
      min-height: 44px;
      border-bottom: 1px solid var(--line);
    }
    /* Large letters on a narrow page: what it is called, and its number below. */
    @media (max-width: 30em) {
      .rule {
        display: flex;
        flex-wrap: wrap;
        padding: 0.2rem 0;
      }
      .rule > :first-child {
        flex: 1 1 9rem;
      }
    }
    h2 {
      margin-top: 1.2rem;
    }
    .store {
      position: sticky;
      bottom: 0;
      margin: 0;
      padding: 0.75rem 0;
      background: var(--paper);
    }
  `,
})
export class RulesPage {
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  private readonly doors = inject(GroundService);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  private readonly drafts = inject(DraftsService);
  protected readonly things = siteThings.map((thing) => ({
    path: `ground.leastM.${thing}`,
    name: siteThingNames[thing],
  }));
  protected readonly sizes = sizeClasses;
  protected readonly sizeNames = sizeNames;
  protected readonly groundNumbers = groundNumbers;
  protected readonly ticketNumbers = ticketNumbers;
  protected readonly matchNumbers = matchNumbers;
  protected readonly labourNumbers = labourNumbers;
  protected readonly standNumbers = standNumbers;
  protected readonly packNumbers = packNumbers;
  protected readonly weatherNumbers = weatherNumbers;
  protected readonly wateringNumbers = wateringNumbers;
  protected readonly wateringTicks = wateringTicks;
  protected readonly lookNumbers = lookNumbers;
  protected readonly climateTicks = climateTicks;
  protected readonly weights = fitParts.map((part) => ({
    path: `match.weights.${part}`,
    name: fitPartNames[part],
    unit: 'weight',
  }));
  protected readonly say = sayDay;
  protected readonly kept = signal<KeptRules | null>(null);
  /** What is typed, by path; the kept value shows where nothing is. */
  protected readonly typed = signal<Readonly<Record<string, string>>>({});
  protected readonly problem = signal<Problem | null>(null);
  protected readonly faults = signal<Readonly<Record<string, string>>>({});
  protected readonly busy = signal(false);
  protected readonly mayEdit = computed(() => this.session.may('change_rules'));
  protected readonly changes = computed(() => Object.keys(this.typed()).length);

  constructor() {
    const draft = this.mayEdit() ? this.drafts.read(draftName) : null;
    if (draft) this.typed.set(draft.value as Record<string, string>);
    void this.read();
  }

  protected async read(): Promise<void> {
    try {
      this.kept.set(await firstValueFrom(this.doors.rules()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  protected shown(path: string): string {
    return this.typed()[path] ?? String(at(this.kept()?.rules, path) ?? '');
  }

  protected on(path: string): boolean {
    return this.shown(path) === 'true';
  }

  protected type(path: string, text: string): void {
    const same = text === String(at(this.kept()?.rules, path) ?? '');
    this.typed.update(({ [path]: _old, ...rest }) => (same ? rest : { ...rest, [path]: text }));
    this.faults.update(({ [path]: _gone, ...rest }) => rest);
    this.drafts.keep(draftName, this.typed());
  }

  protected holidays(): string {
    return this.typed()['ground.holidays'] ?? (this.kept()?.rules.ground.holidays ?? []).join('\n');
  }

  protected pests(): string {
    return this.typed()['pests.list'] ?? (this.kept()?.rules.pests.list ?? []).join('\n');
  }

  protected natives(): string {
    return this.typed()['match.nativeWords'] ?? (this.kept()?.rules.match.nativeWords ?? []).join('\n');
  }

  protected drop(): void {
    this.typed.set({});
    this.faults.set({});
    this.drafts.drop(draftName);
  }

  protected async save(): Promise<void> {
    const kept = this.kept();
    if (!kept) return;
    const rules = structuredClone<Rules>(kept.rules);
    for (const [path, text] of Object.entries(this.typed())) put(rules, path, text);
    this.busy.set(true);
    try {
      this.kept.set(await firstValueFrom(this.doors.saveRules(rules)));
      this.drop();
      this.problem.set(null);
      this.toasts.say('Rules stored as a new version.');
    } catch (error) {
      const problem = readProblem(error);
      this.problem.set(problem);
      this.faults.set(Object.fromEntries((problem.issues ?? []).map(({ path, message }) => [path, message])));
    } finally {
      this.busy.set(false);
    }
  }

  private nameOf(path: string): string {
    const pace = labourNumbers.flatMap(({ numbers }) => numbers);
    const all = [
      groundNumbers,
      ticketNumbers,
      matchNumbers,
      pace,
      standNumbers,
      packNumbers,
      weatherNumbers,
      wateringNumbers,
      lookNumbers,
      this.weights,
    ];
    const pest = /^pests\.list\.(\d+)/.exec(path);
    if (pest) return `Pest in line ${Number(pest[1]) + 1}`;
    return all.flat().find((rule) => rule.path === path)?.name ?? path.split('.').slice(1).join(' ');
  }

  protected faultList(): string {
    const problem = this.problem();
    if (!problem) return '';
    return (
      sayProblem(problem) +
      (problem.issues ?? []).map(({ path, message }) => ` ${this.nameOf(path)}: ${message}.`).join('')
    );
  }
}

function at(rules: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((part, key) => (part as Record<string, unknown> | undefined)?.[key], rules);
}

/** Puts a typed text where the rules hold a number, a yes or no, or a list of lines. */
function put(rules: Rules, path: string, text: string): void {
  const keys = path.split('.');
  const last = keys.pop() ?? '';
  const parent = at(rules, keys.join('.')) as Record<string, unknown> | undefined;
  // A draft from before the rules were ordered anew may speak of what is no longer there.
  if (parent === undefined || !(last in parent)) return;
  const before = parent[last];
  if (Array.isArray(before))
    parent[last] = text
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== '');
  else if (typeof before === 'boolean') parent[last] = text === 'true';
  // What is no number is sent as it is: the answer then names the field.
  else
    parent[last] =
      text.trim() === '' || Number.isNaN(Number(text.replace(',', '.'))) ? text : Number(text.replace(',', '.'));
}
