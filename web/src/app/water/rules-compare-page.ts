import { HttpClient } from '@angular/common/http';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  resource,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { triedWeathers, type RulesTried, type TriedWeather } from '@sombra/contract';
import {
  compareRules,
  compareSoaks,
  formatNumber,
  formatQuantity,
  monthNames,
  percolationClasses,
  pastYear,
  percolationNames,
  routineRules,
  soakLitres,
  soakRules,
  soakTriedDays,
  soilNames,
  typicalClimate,
  waterClimate,
  stockKinds,
  stockNames,
  type RoutineRule,
  type SoilClass,
  type TriedRule,
} from '@sombra/core';
import { firstValueFrom, type Subscription } from 'rxjs';
import { textOf } from '../fields/event-values';
import { DraftsService } from '../offline/drafts.service';
import type { TypedPractice } from '../practice/choice-editor';
import { PracticeService } from '../practice/practice.service';
import { ProgrammeService } from '../programme/programme.service';
import { SessionService } from '../session/session.service';
import { readSpotDetail } from '../spot/spot-context';
import { ChartBox, type PaintedChart } from '../ui/chart-box';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { realTree, usualTree } from './tried-tree';
import { WaterBasisService } from './water-basis.service';
import { WaterService } from './water.service';

const calipers = [25, 40, 50, 75, 100] as const;
/** Until somebody says what theirs cost, in the programme's money; a season of one tree. */
const usual = { visit: 6, m3: 2.5, trees: 1 } as const;
const months = monthNames.map((name, i) => ({ of: String(i + 1).padStart(2, '0'), name }));
const soils = Object.keys(soilNames) as SoilClass[];
const oneOf = <T extends string>(all: readonly T[], asked: string | null, usual: T): T =>
  all.find((one) => one === asked) ?? usual;
const nameOf = (rule: TriedRule): string => (rule === 'none' ? 'nobody comes' : routineRules[rule].name);
/** Broken at a space, so that it fits beside the bars. */
function inLines(name: string): string[] {
  const at = name.lastIndexOf(' ', 32);
  return name.length <= 34 || at < 0 ? [name] : [name.slice(0, at), name.slice(at + 1)];
}

/**
 * How often to water: every rule of the schools on one tree, or on the trees of a place or a season, in the weather that
 * was or a year as it usually is, by what it costs and what it does.
 */
@Component({
  selector: 's-rules-compare-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, StateNote, ChartBox],
  templateUrl: './rules-compare-page.html',
  styleUrl: './rules-compare-page.scss',
})
export class RulesComparePage {
  protected readonly textOf = textOf;
  protected readonly view = inject(ViewState);
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  private readonly drafts = inject(DraftsService);
  private readonly http = inject(HttpClient);
  private readonly basisDoors = inject(WaterBasisService);
  private readonly water = inject(WaterService);
  private readonly practices = inject(PracticeService);
  private readonly programme = inject(ProgrammeService);
  protected readonly choices = { soils, calipers, kinds: stockKinds, drains: percolationClasses };
  protected readonly months = months;
  protected readonly names = { soil: soilNames, kind: stockNames, drains: percolationNames };

  protected readonly soil = computed(() => oneOf(soils, this.view.text('soil'), 'loam'));
  protected readonly drains = computed(() => oneOf(percolationClasses, this.view.text('drains'), 'good'));
  protected readonly kind = computed(() => oneOf(stockKinds, this.view.text('stock'), 'container'));
  protected readonly caliperMm = computed(() => {
    const asked = Number(this.view.text('caliper'));
    return calipers.find((one) => one === asked) ?? 50;
  });
  /** What is asked in the address, or the usual; nothing below zero. */
  private number(key: keyof typeof usual, most: number): number {
    const text = this.view.text(key);
    const value = text === null || text.trim() === '' ? NaN : Number(text);
    return Number.isFinite(value) ? Math.min(most, Math.max(0, value)) : usual[key];
  }
  protected readonly visitCost = computed(() => this.number('visit', 10_000));
  protected readonly m3Cost = computed(() => this.number('m3', 10_000));
  protected readonly trees = computed(() => Math.max(1, Math.round(this.number('trees', 1_000_000))));

  protected readonly isOfTrees = computed(() => this.view.text('of') === 'trees' && this.view.text('spot') === null);
  protected readonly place = computed(() => this.view.text('place') ?? '');
  protected readonly season = computed(() => this.view.text('season') ?? '');

  protected readonly read = resource({
    params: () => ({ spot: this.view.text('spot') }),
    loader: async ({ params: { spot } }) => {
      const [basis, practices, programme, typical, detail] = await Promise.all([
        firstValueFrom(this.basisDoors.basis()),
        firstValueFrom(this.practices.practices()),
        firstValueFrom(this.programme.read()),
        firstValueFrom(this.water.typical()),
        spot ? firstValueFrom(this.http.get(`/api/spots/${spot}`)).then(readSpotDetail) : null,
      ]);
      const kept = practices.practices.find(({ practice: one }) => one.id === practices.current.id);
      const practice = kept?.practice;
      const adopted = practice?.version === practices.current.version;
      const { windows } = programme;
      return practice ? { basis, practice, detail, shipped: kept.shipped, adopted, windows, typical } : null;
    },
  });
  private readonly got = computed(() => (this.read.hasValue() ? this.read.value() : null));

  /** The weather that was, for a tree as it stands; else a year as it usually is, where enough years are known. */
  protected readonly weather = computed((): TriedWeather => {
    const usual = this.view.text('spot') === null && this.isTypicalKnown() ? 'typical' : 'was';
    const asked = oneOf(triedWeathers, this.view.text('weather'), usual);
    return this.isTypicalKnown() ? asked : 'was';
  });
  /** The month a usual tree is planted in, in a typical year: what a first soak lasts hangs on it. */
  protected readonly month = computed(() => {
    const now = this.session.today().slice(5, 7);
    return oneOf(
      months.map(({ of }) => of),
      this.view.text('month'),
      now,
    );
  });
  private readonly plantedIn = computed(() => `${this.session.today().slice(0, 4)}-${this.month()}-01`);
  protected readonly isTypicalKnown = computed(() => (this.got()?.typical ?? null) !== null);

  /** One tree under every rule and every first soak: one that was asked about, or one of ordinary proportions. */
  private readonly tried = computed(() => {
    const read = this.got();
    if (!read || this.isOfTrees()) return null;
    const { basis, practice, adopted, windows, detail } = read;
    const asked = { kind: this.kind(), caliperMm: this.caliperMm(), soil: this.soil(), percolation: this.drains() };
    const one = detail ? realTree(detail, basis.species) : usualTree(asked, practice);
    if (!one) return null;
    const today = this.session.today();
    const typical = this.weather() === 'typical' ? read.typical : null;
    const climate = typical
      ? typicalClimate(typical, { station: basis.station, windows, from: one.plantedOn ?? this.plantedIn() })
      : pastYear(waterClimate(basis, { windows, today }).past, { plantedOn: one.plantedOn, today });
    const [first] = climate;
    if (!first) return null;
    const { stock, pit, care } = one;
    const subject = one.subjectAt(first.day);
    const { latDeg } = basis.station;
    const trials = compareRules({ subject, stock, ringM2: one.ringM2, practice: care, latDeg, climate });
    const litres = soakLitres(pit);
    const soaks = litres && compareSoaks({ subject, litres, climate });
    const until = climate.at(-1)?.day ?? first.day;
    return { practice: care, adopted, windows, trials, soaks: soaks ?? [], from: first.day, until, typical };
  });

  /** The trees of a place or a season, as the server tried the rules on them. */
  protected readonly onTrees = signal<RulesTried | null>(null);
  protected readonly progress = signal<number | null>(null);
  protected readonly fault = signal<string | null>(null);
  private running: Subscription | null = null;
  protected readonly places = resource({
    params: () => (this.isOfTrees() ? {} : undefined),
    loader: () =>
      firstValueFrom(this.water.list({ offset: 0, limit: 1 })).then(
        ({ places }) => places.map(({ name }) => name),
        () => [],
      ),
  });
  protected readonly seasons = computed(() => {
    const year = Number(this.session.today().slice(0, 4));
    return Array.from({ length: 6 }, (_, i) => year - i).map((of) => ({ of: String(of), name: `${of}/${of + 1}` }));
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.running?.unsubscribe());
    // What was tried is of what was asked: asked otherwise it is no answer any more.
    effect(() => {
      this.view.params();
      untracked(() => this.stop());
      this.onTrees.set(null);
    });
  }

  protected tryOnTrees(): void {
    this.fault.set(null);
    this.progress.set(0);
    const season = this.season() === '' ? null : Number(this.season());
    const asked = { place: this.place() || null, season, weather: this.weather() };
    this.running = this.water.tryRules(asked).subscribe({
      next: (line) => {
        if (line.kind === 'running') this.progress.set(line.done);
        else if (line.kind === 'tried') this.onTrees.set(line.tried);
        else this.fault.set(line.title);
      },
      error: (error: unknown) => {
        this.progress.set(null);
        this.fault.set(sayProblem(readProblem(error)));
      },
      complete: () => this.progress.set(null),
    });
  }
  protected stop(): void {
    this.running?.unsubscribe();
    this.running = null;
    this.progress.set(null);
    this.fault.set(null);
  }

  /** The tree that was asked about; `null` for one of ordinary proportions. */
  protected readonly tree = computed(() => {
    const detail = this.got()?.detail ?? null;
    return detail && { ref: detail.spot.ref, place: detail.spot.place, id: detail.tree?.id ?? null };
  });

  /** What each rule came to, a tree on average, and how many trees the sums are of. */
  private readonly shown = computed(() => {
    const of = this.isOfTrees() ? this.onTrees() : null;
    if (of) {
      const rules = of.rules.map(({ rule, litres, visits, stressDays, waterloggedDays }) => ({
        rule,
        litres: litres / of.trees,
        visits: visits / of.trees,
        stressDays: stressDays / of.trees,
        waterloggedDays: waterloggedDays / of.trees,
      }));
      return { rules, trees: of.of };
    }
    return { rules: this.tried()?.trials ?? [], trees: this.tree() ? 1 : this.trees() };
  });

  /** The programme's own rule, where the version shown is the one it works by. */
  private readonly rule = computed(() => {
    const read = this.got();
    if (!read?.adopted) return null;
    return (this.tried()?.practice ?? read.practice).routine.rule;
  });
  /** What the doses are of; a version that is kept and not adopted yet is said to be one. */
  protected readonly by = computed(() => {
    const tried = this.tried();
    return tried
      ? `${tried.practice.name}${tried.adopted ? '' : ', its newest version, which is not adopted yet'}`
      : '';
  });
  protected readonly span = computed(() => {
    const tried = this.tried();
    if (tried?.typical) return `A typical year of ${tried.typical.years} here, from ${sayDay(tried.from)}`;
    return tried ? `The weather of ${sayDay(tried.from)} to ${sayDay(tried.until)}` : '';
  });
  /** Of what the trees of a place or a season were tried. */
  protected readonly ofTrees = computed(() => {
    const of = this.onTrees();
    if (!of) return '';
    const some = of.trees < of.of ? `${of.trees} of ${of.of} trees, evenly taken` : `all ${of.of} trees`;
    const weather =
      of.years === null ? 'the weather since each was planted, a year at most' : `a typical year of ${of.years} here`;
    return `Tried on ${some}, each under the practice that goes for it, in ${weather}; ${formatNumber(of.days, 0)} days a tree.`;
  });
  /** Those that stress least and drown least first; of alike ones what costs less. */
  private readonly sorted = computed(() =>
    [...this.shown().rules].sort(
      (a, b) => a.stressDays + a.waterloggedDays - b.stressDays - b.waterloggedDays || a.visits - b.visits,
    ),
  );
  protected readonly lines = computed(() => {
    const { trees } = this.shown();
    const digits = this.isOfTrees() ? 1 : 0;
    return this.sorted().map(({ rule, litres, visits, stressDays, waterloggedDays }) => ({
      cost: formatNumber(trees * (visits * this.visitCost() + (litres / 1000) * this.m3Cost()), 0),
      rule,
      name: nameOf(rule),
      held: rule === 'none' ? '' : routineRules[rule].held,
      now: rule === this.rule(),
      litres: formatQuantity(trees * litres, 'volumeL', this.session.units()),
      visits: formatNumber(trees * visits, 0),
      stressDays: formatNumber(stressDays, digits),
      waterloggedDays: formatNumber(waterloggedDays, digits),
    }));
  });
  protected readonly soaks = computed(() => {
    const now = this.tried()?.adopted ? this.tried()?.practice.firstSoak.rule : null;
    return (this.tried()?.soaks ?? []).map(({ rule, litres, asksAfterDays, stressDays, waterloggedDays, days }) => ({
      rule,
      name: soakRules[rule].name,
      held: soakRules[rule].held,
      now: rule === now,
      litres: formatQuantity(litres, 'volumeL', this.session.units()),
      asks:
        asksAfterDays === null ? `not in ${days} days` : asksAfterDays === 0 ? 'at once' : `after ${asksAfterDays} d`,
      stressDays,
      waterloggedDays,
    }));
  });
  protected readonly soakDays = soakTriedDays;

  /** The answer in a sentence a council can read. */
  protected readonly answer = computed(() => {
    const balance = this.shown().rules.find(({ rule }) => rule === 'balance');
    if (!balance) return '';
    const litres = formatQuantity(balance.litres / Math.max(1, balance.visits), 'volumeL', this.session.units());
    const times = formatNumber(balance.visits, this.isOfTrees() ? 1 : 0);
    if (this.isOfTrees()) return `Each of these trees asked for water ${times} times, about ${litres} each time.`;
    if (this.tree()) return `This tree asked for water ${times} times in that while, about ${litres} each time.`;
    const asks = this.weather() === 'typical' ? 'asks' : 'asked';
    return `A tree like this ${asks} for water ${times} times in its first year here, about ${litres} each time.`;
  });
  protected readonly mayChoose = computed(() => this.session.may('change_practice'));

  /** Lays the choice into the editor of the programme's practice, or of a copy where that one ships as it is. */
  protected choose(rule: RoutineRule): void {
    const read = this.got();
    if (!read) return;
    const { practice, shipped } = read;
    const into = shipped ? 'copy' : 'edit';
    const typed: TypedPractice = {
      name: shipped ? `${practice.name}, ours` : practice.name,
      kinds: practice.appliesTo,
      typed: { 'routine.rule': { text: rule, value: rule } },
      units: this.session.units(),
    };
    this.drafts.keep(`practice.${into}.${practice.id}`, typed);
    void this.router.navigate(['/practices'], { queryParams: { [into]: practice.id } });
  }

  protected readonly summary = computed(() =>
    this.lines()
      .map(
        ({ name, stressDays, waterloggedDays }) =>
          `${name}: ${stressDays} days of stress, ${waterloggedDays} waterlogged`,
      )
      .join('; '),
  );
  protected readonly chart = computed((): PaintedChart<'bar'> => {
    const lines = this.lines();
    return ({ colour, font }) => ({
      type: 'bar',
      data: {
        labels: lines.map(({ name }) => inLines(name)),
        datasets: [
          {
            label: 'days of stress',
            data: this.sorted().map(({ stressDays }) => stressDays),
            backgroundColor: colour('--sun'),
          },
          {
            label: 'days waterlogged',
            data: this.sorted().map(({ waterloggedDays }) => waterloggedDays),
            backgroundColor: colour('--water'),
          },
          {
            label: 'visits a tree',
            data: this.sorted().map(({ visits }) => visits),
            backgroundColor: colour('--edge'),
          },
        ],
      },
      options: {
        indexAxis: 'y',
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: { beginAtZero: true, ticks: { color: colour('--quiet'), font }, grid: { color: colour('--line') } },
          y: { ticks: { color: colour('--ink'), font, autoSkip: false }, grid: { display: false } },
        },
        plugins: { legend: { labels: { color: colour('--ink'), font } } },
      },
    });
  });
}
