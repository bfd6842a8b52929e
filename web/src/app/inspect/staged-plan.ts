import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { cutToolNames, formatNumber, formatQuantity, referWhyNames, stagedCuts } from '@sombra/core';
import { limitsOf, type CollarRoots, type CutLimits } from '../collar/collar-roots';
import { SessionService } from '../session/session.service';
import { TermNote } from '../ui/term-note';

/** Cuts over the seasons to come: which root, with what, at which two points, and what that frees. */
@Component({
  selector: 's-staged-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [TermNote],
  template: `
    <section aria-label="Root cuts over the seasons">
      <h2>Cuts over the seasons <s-term code="staged" /></h2>
      @for (season of seasons(); track season.name) {
        <h3>{{ season.name }}: {{ season.freed }} of the trunk freed by then, {{ season.removed }} of the roots</h3>
        <ul>
          @for (cut of season.cuts; track $index) {
            <li>{{ cut }}</li>
          }
        </ul>
      } @empty {
        <p>No root is for the crew to cut.</p>
      }
      @if (referred().length > 0) {
        <h3>For an arborist</h3>
        <ul>
          @for (one of referred(); track $index) {
            <li>{{ one }}</li>
          }
        </ul>
      }
      @if (plan().later.length > 0) {
        <p>After that, at a later look: {{ later() }}.</p>
      }
      @if (!anchored()) {
        <p class="quiet">
          Shares are of the roots exposed. Tap in those that hold it: a root that circles is then a smaller part of all.
        </p>
      }
      @if (!plan().exact) {
        <p class="quiet">More than 20 roots may be cut: those that press on most for their thickness are planned.</p>
      }
      <p class="caution">
        Cut cleanly at both points; the far piece may stay. In cool, cloudy weather, roots kept moist. Watch how it
        stands after each season.
      </p>
    </section>
  `,
  styles: `
    h3 {
      font-size: 1rem;
      margin: 0.6rem 0 0.2rem;
    }
    ul {
      margin: 0;
    }
  `,
})
export class StagedPlanView {
  readonly collar = input.required<CollarRoots>();
  readonly cutBy = input.required<CutLimits>();
  private readonly session = inject(SessionService);
  /** Whether somebody said what holds the tree. */
  protected readonly anchored = computed(() => (this.collar().anchors ?? []).length > 0);
  protected readonly plan = computed(() => {
    const { roots, anchors = [] } = this.collar();
    return stagedCuts({ roots, anchors, ...limitsOf(this.cutBy()) });
  });

  protected readonly seasons = computed(() =>
    this.plan().seasons.map(({ cuts, removedPct, relievedDeg }, i) => ({
      name: `Season ${i + 1}`,
      freed: `${formatNumber(relievedDeg, 0)}°`,
      removed: `${formatNumber(removedPct, 0)} %`,
      cuts: cuts.map(
        ({ root, tool, atDeg: [from, to] }) =>
          `Root ${root + 1}, ${this.thickness(root)}: ${cutToolNames[tool]}, at ${from}° and ${to}°`,
      ),
    })),
  );
  protected readonly referred = computed(() =>
    this.plan().referred.map(({ root, why }) => `Root ${root + 1}, ${this.thickness(root)}: ${referWhyNames[why]}`),
  );
  protected readonly later = computed(() =>
    this.plan()
      .later.map((root) => `root ${root + 1}`)
      .join(', '),
  );

  private thickness(root: number): string {
    return formatQuantity(this.collar().roots[root]?.diameterMm ?? 0, 'lengthMm', this.session.units());
  }
}
