import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import type { KeptSpecies } from '@sombra/contract';
import {
  clearanceOf,
  fitPartNames,
  formatNumber,
  matchSite,
  rankSpecies,
  sayReason,
  type RankedSpecies,
  type Species,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { ViewState } from '../ui/view-state.service';
import { SessionService } from '../session/session.service';
import { FormDraft } from '../spot/form-draft';
import { RecordSender } from '../spot/record-sender';
import { SpotHead } from '../spot/spot-head';
import { SpotStore } from '../spot/spot-store';
import { GrowthCompare } from './growth-compare';
import { MatchService } from './match.service';
import { tickOf } from '../fields/event-values';

const mostCompared = 3;

/** Which tree for this place: hard limits first, then the fit with its parts, and up to three side by side as they grow. */
@Component({
  selector: 's-match-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [SpotHead, GrowthCompare],
  providers: [RecordSender, FormDraft],
  templateUrl: './match-bench.html',
  styleUrl: './match-bench.scss',
})
export class MatchBench {
  protected readonly tickOf = tickOf;
  protected readonly store = inject(SpotStore);
  protected readonly session = inject(SessionService);
  protected readonly sender = inject(RecordSender);
  private readonly view = inject(ViewState);
  private readonly router = inject(Router);
  private readonly doors = inject(MatchService);
  protected readonly partNames = fitPartNames;
  protected readonly day = sayDay;
  protected readonly fault = signal<string | null>(null);
  protected readonly all = signal(false);
  private readonly library = signal<readonly KeptSpecies[]>([]);

  protected readonly mayChoose = computed(() => this.session.may('record_choice'));
  protected readonly planted = computed(() => !!this.store.life()?.planting);
  protected readonly choice = computed(() => this.store.life()?.choice ?? null);
  private readonly site = computed(() => {
    const [detail, life] = [this.store.detail(), this.store.life()];
    if (!detail || !life) return null;
    const { ground: rules, match: matchRules } = detail.rules;
    const { ground, assessment, drainage } = life;
    return matchSite({ ground, assessment, rules, matchRules, drainage });
  });
  private readonly ranked = computed(() => {
    const site = this.site();
    return site
      ? rankSpecies(
          this.library().map(({ species }) => species),
          site,
        )
      : { fitting: [], excluded: [] };
  });
  protected readonly fitting = computed(() =>
    this.all() ? this.ranked().fitting : this.ranked().fitting.slice(0, 12),
  );
  protected readonly count = computed(() => this.ranked().fitting.length);
  protected readonly excluded = computed(() =>
    this.ranked().excluded.map(({ species, because }) => ({
      species,
      why: because.map((reason) => sayReason(reason, this.session.units())).join(' '),
    })),
  );
  private readonly names = computed(() => (this.view.text('compare') ?? '').split(',').filter((name) => name !== ''));
  protected readonly compared = computed(() =>
    this.names().flatMap((name) => this.ranked().fitting.filter(({ species }) => species.botanical === name)),
  );

  /** What the compared trees grow against. */
  protected readonly place = computed(() => {
    const [detail, life, site] = [this.store.detail(), this.store.life(), this.site()];
    if (!detail || !life || !site) return null;
    const { assessment, ground } = life;
    const distance = assessment?.pavementM ?? null;
    return {
      position: detail.spot.position,
      rules: detail.rules.ground,
      assessment,
      wireHeightM: typeof ground.wireHeightM === 'number' ? ground.wireHeightM : null,
      room: {
        tallestM: site.judgement.underWireM,
        wireM: clearanceOf(assessment, 'wire'),
        wallM: clearanceOf(assessment, 'building'),
        nextTreeM: clearanceOf(assessment, 'tree'),
      },
      pavement:
        distance === null
          ? null
          : { distanceM: distance, widthM: assessment?.pavementWidthM ?? 2, towardsDeg: assessment?.pavementDeg ?? 0 },
    };
  });

  constructor() {
    effect(() => {
      if (this.store.detail()) untracked(() => void this.read());
    });
  }

  private async read(): Promise<void> {
    if (this.library().length > 0) return;
    try {
      this.library.set(await firstValueFrom(this.doors.species()));
      this.fault.set(null);
    } catch (error) {
      this.fault.set(sayProblem(readProblem(error)));
    }
  }

  protected percent(score: number): string {
    return formatNumber(score * 100, 0);
  }

  protected held(species: Species): string {
    const found = this.library().find((one) => one.species.botanical === species.botanical);
    return found ? `${found.standing} stand` : '';
  }

  protected isCompared({ species }: RankedSpecies): boolean {
    return this.names().includes(species.botanical);
  }

  protected compare({ species }: RankedSpecies, on: boolean): void {
    const others = this.names().filter((name) => name !== species.botanical);
    const names = on ? [...others, species.botanical].slice(-mostCompared) : others;
    this.view.set({ compare: names.length > 0 ? names.join(',') : null });
  }

  protected reasons(one: RankedSpecies): string {
    return one.fit.parts.map(({ because }) => sayReason(because, this.session.units())).join('\n');
  }

  protected async choose({ species, fit }: RankedSpecies): Promise<void> {
    const id = this.store.detail()?.spot.id;
    const reason = `Fit ${this.percent(fit.score)} of 100`;
    const facts = {
      chosenOn: this.session.today(),
      species: species.botanical,
      stockKind: null,
      caliperMm: null,
      reason,
    };
    const supersedes = null;
    if (await this.sender.send({ kind: 'choice', facts, supersedes }, `${species.botanical} chosen.`)) {
      void this.router.navigate(['/match', id], { queryParams: { compare: null }, queryParamsHandling: 'merge' });
    }
  }
}
