import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import type { KeptPractice, MeasuredSettlement, Practices, Problem, SpotDetail } from '@sombra/contract';
import {
  formatNumber,
  soilClasses,
  soilNames,
  stockKinds,
  stockNames,
  unknownGround,
  type GroundFacts,
  type Practice,
  type SoilClass,
  type Stock,
  type StockKind,
} from '@sombra/core';
import { NgTemplateOutlet } from '@angular/common';
import { HttpClient } from '@angular/common/http';
import { EMPTY, filter, firstValueFrom, interval, switchMap, type Subscription } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { SessionService } from '../session/session.service';
import { lifeOf, readSpotDetail } from '../spot/spot-context';
import { ChoiceEditor, type TypedPractice } from './choice-editor';
import { DraftsService } from '../offline/drafts.service';
import { PracticeCompare, type ExampleTree } from './practice-compare';
import { PracticeService } from './practice.service';
import { textOf, tickOf } from '../fields/event-values';

/** Usual stock of each kind, to see a practice on before there is a tree. */
const usual: Readonly<Record<StockKind, Stock>> = {
  container: {
    kind: 'container',
    caliperMm: 50,
    heightM: 3,
    ballDiameterMm: 450,
    ballHeightMm: 400,
    topRootsDepthMm: 60,
  },
  balled: { kind: 'balled', caliperMm: 65, heightM: 4, ballDiameterMm: 700, ballHeightMm: 500, topRootsDepthMm: 90 },
  bare_root: { kind: 'bare_root', caliperMm: 25, heightM: 2, rootSpreadMm: 500, rootDepthMm: 300 },
};
const fall = (mm: number) => [0, 1, 2, 3].map((i) => ({ minute: i * 60, levelMm: 400 - i * mm }));

/** Practices: what each chooses and why, two of them side by side on one tree, copies to change, and which one rules. */
@Component({
  selector: 's-practices-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [NgTemplateOutlet, RouterLink, StateNote, ChoiceEditor, PracticeCompare],
  templateUrl: './practices-page.html',
  styleUrl: './practices-page.scss',
})
export class PracticesPage {
  protected readonly textOf = textOf;
  protected readonly tickOf = tickOf;
  private readonly doors = inject(PracticeService);
  private readonly http = inject(HttpClient);
  private readonly session = inject(SessionService);
  private readonly toasts = inject(ToastsService);
  private readonly drafts = inject(DraftsService);
  private readonly router = inject(Router);
  protected readonly view = inject(ViewState);
  protected readonly stockKinds = stockKinds;
  protected readonly stockNames = stockNames;
  protected readonly soils = soilClasses;
  protected readonly soilNames = soilNames;
  protected readonly all = signal<Practices | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly adopting = signal<{ name: string; done: number; of: number } | null>(null);
  private adoption: Subscription | undefined;
  protected readonly mayAdopt = computed(() => this.session.may('adopt_practice'));
  protected readonly kept = computed(() => this.all() as Practices);
  /** A change that has not ended, of somebody else or given up. */
  protected readonly halfDone = computed(() => {
    const open = this.all()?.adoption;
    if (!open) return null;
    const nameOf = (id: string) =>
      this.kept().practices.find(({ practice }) => practice.id === id)?.practice.name ?? id;
    return { ...open, name: nameOf(open.id), before: nameOf(this.kept().current.id) };
  });
  /** Somebody is at it, here or elsewhere: looked at again until it is done. */
  private readonly walkedElsewhere = computed(() => !this.adopting() && this.halfDone()?.running === true);
  protected readonly settlement = signal<MeasuredSettlement>(null);
  protected readonly percent = (share: number): string => `${formatNumber(share * 100, 0)} %`;
  private readonly detail = signal<SpotDetail | null>(null);

  protected readonly mayEdit = computed(() => this.session.may('change_practice'));
  protected readonly a = computed(() => this.named(this.view.text('a')) ?? this.current());
  protected readonly b = computed(() => this.named(this.view.text('b')));
  /** The copy or the practice that is being changed: the address says which, so that a reload shows it again. */
  protected readonly draft = computed((): Practice | null => {
    if (!this.mayEdit()) return null;
    const [copied, edited] = [this.named(this.view.text('copy')), this.named(this.view.text('edit'))];
    if (copied) return this.copyOf(copied.practice);
    return edited && !edited.shipped ? edited.practice : null;
  });
  /** What the draft was made from, as it stands. */
  protected readonly origin = computed(
    () => (this.named(this.view.text('copy')) ?? this.named(this.view.text('edit')))?.practice ?? null,
  );
  protected readonly tried = signal<Practice | null>(null);
  protected readonly draftName = computed(
    () => `practice.${this.view.text('copy') ? 'copy' : 'edit'}.${this.view.text('copy') ?? this.view.text('edit')}`,
  );
  protected readonly kind = computed(
    (): StockKind => stockKinds.find((kind) => kind === this.view.text('kind')) ?? 'container',
  );
  protected readonly soil = computed(
    (): SoilClass => soilClasses.find((soil) => soil === this.view.text('soil')) ?? 'loam',
  );
  protected readonly slow = computed(() => this.view.text('drains') === 'slow');

  /** The tree both are shown on: the one of a spot, or a usual one of its kind. */
  protected readonly tree = computed((): ExampleTree => {
    const detail = this.detail();
    const life = detail && lifeOf(detail);
    if (detail && life?.stock) {
      return {
        name: `${detail.spot.ref}, ${detail.spot.place}`,
        stock: life.stock,
        ground: life.ground,
        assessment: life.assessment,
        sunDeg: life.sunDeg,
        autumn: life.autumn,
      };
    }
    const ground: GroundFacts = {
      ...unknownGround,
      soil: this.soil(),
      percolation: fall(this.slow() ? 12 : 60),
      slopePct: 0,
      stripWidthMm: 'open',
      wireHeightM: 'none',
    };
    const name = `${stockNames[this.kind()]} stock in ${soilNames[this.soil()]}${this.slow() ? ' that drains slowly' : ''}`;
    return { name, stock: usual[this.kind()], ground, assessment: null };
  });
  protected readonly onSpot = computed(() => !!this.detail());

  constructor() {
    void this.read();
    toObservable(this.walkedElsewhere)
      .pipe(
        switchMap((walked) => (walked ? interval(2000) : EMPTY)),
        filter(() => !document.hidden),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.read());

    void firstValueFrom(this.doors.settlement())
      .then((measured) => this.settlement.set(measured))
      .catch(() => undefined);
    effect(() => {
      const spot = this.view.text('spot');
      untracked(() => void this.openSpot(spot));
    });
  }

  protected async read(): Promise<void> {
    try {
      this.all.set(await firstValueFrom(this.doors.practices()));
      this.problem.set(null);
    } catch (error) {
      this.problem.set(readProblem(error));
    }
  }

  private async openSpot(id: string | null): Promise<void> {
    if (!id) return this.detail.set(null);
    try {
      this.detail.set(readSpotDetail(await firstValueFrom(this.http.get(`/api/spots/${id}`))));
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
  }

  private named(id: string | null): KeptPractice | null {
    return this.all()?.practices.find(({ practice }) => practice.id === id) ?? null;
  }

  private current(): KeptPractice | null {
    return this.named(this.all()?.current.id ?? null);
  }

  protected isCurrent({ id, version }: Practice): boolean {
    const current = this.all()?.current;
    return current?.id === id && current.version === version;
  }

  protected kindsOf({ appliesTo }: Practice): string {
    return appliesTo.length === stockKinds.length ? 'all stock' : appliesTo.map((kind) => stockNames[kind]).join(', ');
  }

  private copyOf(practice: Practice): Practice {
    const taken = new Set(this.all()?.practices.map((one) => one.practice.id));
    const name = `${practice.name}, ours`;
    const base = slug(name);
    const id = [base, ...[2, 3, 4, 5, 6, 7, 8, 9].map((i) => `${base}-${i}`)].find((one) => !taken.has(one)) ?? base;
    return { ...practice, id, name, version: 0 };
  }

  /** A copy whose firmed fill settles as it was measured to. */
  protected takeSettlement({ practice }: KeptPractice, share: number): void {
    const typed: TypedPractice = {
      name: `${practice.name}, ours`,
      kinds: practice.appliesTo,
      typed: { 'flareAboveGrade.settlementFirmed': { text: formatNumber(share * 100, 1), value: share } },
      units: this.session.units(),
    };
    this.drafts.keep(`practice.copy.${practice.id}`, typed);
    this.view.set({ copy: practice.id, edit: null });
  }

  protected leave(): void {
    this.drafts.drop(this.draftName());
    this.view.set({ copy: null, edit: null });
  }

  protected async save(practice: Practice): Promise<void> {
    await this.run(async () => {
      this.all.set(await firstValueFrom(this.doors.save(practice)));
      this.drafts.drop(this.draftName());
      this.view.set({ a: practice.id, copy: null, edit: null });
      this.toasts.say(`${practice.name} stored as version ${practice.version + 1}.`);
    });
  }

  protected adopt({ practice }: KeptPractice): void {
    const question = `Plant by ${practice.name} from now on? Every pit that is not planted yet is worked out afresh. Planted trees keep the practice they were planted under.`;
    if (confirm(question)) this.walk(practice, practice.name);
  }

  /** Begins a change of practice, goes on with one that stands half done, or takes it back to the one before. */
  protected walk(to: { readonly id: string; readonly version: number }, name: string): void {
    this.fault.set(null);
    this.adopting.set({ name, done: 0, of: 1 });
    this.adoption = this.doors.adopt(to).subscribe({
      next: (news) => {
        if (news.kind === 'progress') this.adopting.set({ name, done: news.done, of: news.of });
        if (news.kind === 'failed') this.stopAdopting(news.title);
        if (news.kind === 'done') {
          this.all.set(news.practices);
          this.stopAdopting(null);
          this.toasts.say(`${name} is the programme's practice.`);
        }
      },
      error: (error: unknown) => this.stopAdopting(sayProblem(readProblem(error))),
    });
  }

  protected async stop(): Promise<void> {
    await this.run(async () => {
      const practices = await firstValueFrom(this.doors.stopAdopting());
      this.stopAdopting(null);
      this.all.set(practices);
    });
  }

  private stopAdopting(fault: string | null): void {
    this.adoption?.unsubscribe();
    this.adopting.set(null);
    this.fault.set(fault);
    if (fault) void this.read();
  }

  private async run(act: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.fault.set(null);
    try {
      await act();
    } catch (error) {
      const problem = readProblem(error);
      const issues = (problem.issues ?? []).map(({ path, message }) => ` ${path}: ${message}.`).join('');
      this.fault.set(sayProblem(problem) + issues);
    } finally {
      this.busy.set(false);
    }
  }

  protected leaveSpot(): void {
    void this.router.navigate([], { queryParams: { spot: null }, queryParamsHandling: 'merge' });
  }
}

const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 50);
