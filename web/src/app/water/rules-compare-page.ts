import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, resource } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import {
  addDaysTo,
  compareRules,
  daysFrom,
  formatNumber,
  formatQuantity,
  percolationClasses,
  percolationNames,
  routineRules,
  soilNames,
  stockKinds,
  stockNames,
  typicalRingM2,
  typicalStock,
  typicalSubject,
  waterClimate,
  waterInputs,
  type IsoDate,
  type RoutineRule,
  type SoilClass,
  type TriedRule,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { textOf } from '../fields/event-values';
import { DraftsService } from '../offline/drafts.service';
import type { TypedPractice } from '../practice/choice-editor';
import { PracticeService } from '../practice/practice.service';
import { ProgrammeService } from '../programme/programme.service';
import { SessionService } from '../session/session.service';
import { lifeOf, readSpotDetail } from '../spot/spot-context';
import { ChartBox, type PaintedChart } from '../ui/chart-box';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { WaterBasisService } from './water-basis.service';

const calipers = [25, 40, 50, 75, 100] as const;
const mostDays = 365;
/** Until somebody says what theirs cost, in the programme's money; a season of one tree. */
const usual = { visit: 6, m3: 2.5, trees: 1 } as const;
const soils = Object.keys(soilNames) as SoilClass[];
const oneOf = <T extends string>(all: readonly T[], asked: string | null, usual: T): T =>
  all.find((one) => one === asked) ?? usual;
const latest = (days: readonly IsoDate[]): IsoDate => [...days].sort().at(-1) ?? '';
const nameOf = (rule: TriedRule): string => (rule === 'none' ? 'nobody comes' : routineRules[rule].name);
/** Broken at a space, so that it fits beside the bars. */
function inLines(name: string): string[] {
  const at = name.lastIndexOf(' ', 32);
  return name.length <= 34 || at < 0 ? [name] : [name.slice(0, at), name.slice(at + 1)];
}

/** How often to water: every rule of the schools on one tree, in the weather that was, by what it costs and what it does. */
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
  private readonly practices = inject(PracticeService);
  private readonly programme = inject(ProgrammeService);
  protected readonly choices = { soils, calipers, kinds: stockKinds, drains: percolationClasses };
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

  /** Trees that the lines are of: one that was asked about stands for itself. */
  private many(): number {
    return this.tree() ? 1 : this.trees();
  }

  protected readonly read = resource({
    params: () => ({ spot: this.view.text('spot') }),
    loader: async ({ params: { spot } }) => {
      const [basis, practices, programme, detail] = await Promise.all([
        firstValueFrom(this.basisDoors.basis()),
        firstValueFrom(this.practices.practices()),
        firstValueFrom(this.programme.read()),
        spot ? firstValueFrom(this.http.get(`/api/spots/${spot}`)).then(readSpotDetail) : null,
      ]);
      const kept = practices.practices.find(({ practice: one }) => one.id === practices.current.id);
      const practice = kept?.practice;
      const adopted = practice?.version === practices.current.version;
      return practice ? { basis, practice, detail, shipped: kept.shipped, adopted, windows: programme.windows } : null;
    },
  });

  private readonly tried = computed(() => {
    const read = this.read.hasValue() ? this.read.value() : null;
    if (!read) return null;
    const { basis, practice, adopted, windows, detail } = read;
    const today = this.session.today();
    const { past } = waterClimate(basis, { windows, today });
    const yearAgo = addDaysTo(today, 1 - mostDays);
    const { latDeg } = basis.station;
    if (detail) {
      // A tree as it stands, under the practice that goes for it, since it was planted or for a year.
      const life = lifeOf(detail);
      const known = basis.species.find(({ botanical }) => botanical === detail.tree?.species) ?? null;
      const inputs = waterInputs(detail.records, life, known);
      if (!inputs || !life.stock) return null;
      const { subject } = inputs;
      const climate = daysFrom(past, latest([subject.plantedOn, yearAgo]), mostDays);
      const [first] = climate;
      if (!first) return null;
      const { stock, care, plan } = life;
      const ringM2 = plan?.kind === 'plan' ? plan.ringM2 : typicalRingM2(stock, subject, care);
      const trials = compareRules({ subject, stock, ringM2, practice: care, latDeg, climate });
      return { practice: care, adopted, trials, from: first.day, until: climate.at(-1)?.day ?? first.day };
    }
    const climate = daysFrom(past, yearAgo, mostDays);
    const [first] = climate;
    if (!first) return null;
    const stock = typicalStock(this.kind(), this.caliperMm());
    const ground = { soil: this.soil(), percolation: this.drains() };
    const subject = typicalSubject(stock, { ...ground, plantedOn: first.day, practice });
    const ringM2 = typicalRingM2(stock, ground, practice);
    const trials = compareRules({ subject, stock, ringM2, practice, latDeg, climate });
    return { practice, adopted, trials, from: first.day, until: climate.at(-1)?.day ?? first.day };
  });
  /** The tree that was asked about; `null` for one of ordinary proportions. */
  protected readonly tree = computed(() => {
    const detail = this.read.hasValue() ? (this.read.value()?.detail ?? null) : null;
    return detail && { ref: detail.spot.ref, place: detail.spot.place, id: detail.tree?.id ?? null };
  });
  /** The programme's own rule, where the version shown is the one it works by. */
  private readonly rule = computed(() => {
    const tried = this.tried();
    return tried?.adopted ? tried.practice.routine.rule : null;
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
    return tried ? `${sayDay(tried.from)} to ${sayDay(tried.until)}` : '';
  });
  /** Those that stress least and drown least first; of alike ones what costs less. */
  private readonly sorted = computed(() =>
    [...(this.tried()?.trials ?? [])].sort(
      (a, b) => a.stressDays + a.waterloggedDays - b.stressDays - b.waterloggedDays || a.visits - b.visits,
    ),
  );
  protected readonly lines = computed(() =>
    this.sorted().map(({ rule, litres, visits, stressDays, waterloggedDays }) => ({
      cost: formatNumber(this.many() * (visits * this.visitCost() + (litres / 1000) * this.m3Cost()), 0),
      rule,
      name: nameOf(rule),
      held: rule === 'none' ? '' : routineRules[rule].held,
      now: rule === this.rule(),
      litres: formatQuantity(this.many() * litres, 'volumeL', this.session.units()),
      visits: formatNumber(this.many() * visits, 0),
      stressDays,
      waterloggedDays,
    })),
  );
  /** The answer in a sentence a council can read. */
  protected readonly answer = computed(() => {
    const balance = this.tried()?.trials.find(({ rule }) => rule === 'balance');
    if (!balance) return '';
    const litres = formatQuantity(balance.litres / Math.max(1, balance.visits), 'volumeL', this.session.units());
    if (this.tree()) {
      return `This tree asked for water ${balance.visits} times in that while, about ${litres} each time.`;
    }
    return `A tree like this asked for water ${balance.visits} times in its first year here, about ${litres} each time.`;
  });
  protected readonly mayChoose = computed(() => this.session.may('change_practice'));

  /** Lays the choice into the editor of the programme's practice, or of a copy where that one ships as it is. */
  protected choose(rule: RoutineRule): void {
    const read = this.read.hasValue() ? this.read.value() : null;
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
            data: lines.map(({ stressDays }) => stressDays),
            backgroundColor: colour('--sun'),
          },
          {
            label: 'days waterlogged',
            data: lines.map(({ waterloggedDays }) => waterloggedDays),
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
