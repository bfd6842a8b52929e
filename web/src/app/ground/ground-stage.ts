import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { groundGaps, siteVerdictNames } from '@sombra/core';
import { ViewState } from '../ui/view-state.service';
import { SpotHead } from '../spot/spot-head';
import { SpotStore } from '../spot/spot-store';
import { AssessmentForm } from './assessment-form';
import { GroundBench } from './ground-bench';
import { LeavePanel } from './leave-panel';
import { PercolationInstrument } from './percolation-instrument';
import { SiteVerdictPanel } from './site-verdict-panel';

const parts = [
  { part: 'facts', name: 'Ground facts' },
  { part: 'around', name: 'Surroundings' },
  { part: 'percolation', name: 'Percolation' },
  { part: 'verdict', name: 'Verdict' },
  { part: 'leave', name: 'Leave to dig' },
] as const;
type Part = (typeof parts)[number]['part'];

/** Is this a place for a tree: what is measured, what stands around, what may be dug, and the verdict. */
@Component({
  selector: 's-ground-stage',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [SpotHead, GroundBench, AssessmentForm, PercolationInstrument, SiteVerdictPanel, LeavePanel],
  template: `
    <s-spot-head />
    <div class="parts" role="group" aria-label="Parts of the ground">
      @for (one of parts; track one.part) {
        <button type="button" [attr.aria-pressed]="part() === one.part" (click)="view.set({ part: one.part })">
          {{ one.name }}
          @if (done()[one.part]; as mark) {
            <i class="bi bi-check2" aria-hidden="true"></i><span class="visually-hidden">{{ mark }}</span>
          }
        </button>
      }
    </div>
    @switch (part()) {
      @case ('facts') {
        <s-ground-bench />
      }
      @case ('around') {
        <s-assessment-form />
      }
      @case ('percolation') {
        <s-percolation-instrument />
      }
      @case ('verdict') {
        <s-site-verdict />
      }
      @case ('leave') {
        <s-leave-panel />
      }
    }
  `,
  styles: `
    .parts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.3rem;
      margin-bottom: 0.9rem;
    }
    button {
      min-height: 40px;
      padding: 0.1rem 0.8rem;
      border: 1px solid var(--edge);
      background: var(--sheet);
      color: var(--ink);
    }
    button[aria-pressed='true'] {
      background: var(--pine);
      color: #fffdf6;
      border-color: var(--pine);
      font-weight: 600;
    }
    @media (max-width: 720px) {
      button {
        min-height: 48px;
        padding: 0.1rem 0.6rem;
      }
    }
    @media print {
      .parts {
        display: none;
      }
    }
  `,
})
export class GroundStage {
  protected readonly store = inject(SpotStore);
  protected readonly view = inject(ViewState);
  protected readonly parts = parts;

  /** The part asked for by the address, else the first that is missing. */
  protected readonly part = computed<Part>(() => {
    const asked = parts.find(({ part }) => part === this.view.text('part'))?.part;
    const life = this.store.life();
    if (asked || !life) return asked ?? 'facts';
    if (groundGaps(life.ground, life.drainage).length > 0) return 'facts';
    return life.assessment ? 'verdict' : 'around';
  });

  protected readonly done = computed<Readonly<Record<Part, string>>>(() => {
    const life = this.store.life();
    const whole = !!life && groundGaps(life.ground, life.drainage).length === 0;
    return {
      facts: whole ? 'complete' : '',
      around: life?.assessment ? 'stored' : '',
      percolation: life && life.ground.percolation.length > 2 ? 'stored' : '',
      verdict: life?.verdict ? siteVerdictNames[life.verdict.verdict] : '',
      leave: '',
    };
  });
}
