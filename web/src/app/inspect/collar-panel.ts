import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { collarDial, cutByCrew, isPressing, stagedCuts } from '@sombra/core';
import { limitsOf, rootWords } from '../collar/collar-roots';
import { DrawingView } from '../drawing/drawing-view';
import { SessionService } from '../session/session.service';
import { SpotStore } from '../spot/spot-store';
import { sayDay } from '../ui/say-date';
import { StagedPlanView } from './staged-plan';

/** The collar of a tree as the newest look that uncovered it found it, over the one before, with the cuts to come. */
@Component({
  selector: 's-collar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawingView, StagedPlanView],
  template: `
    @if (seen(); as now) {
      <section aria-labelledby="collar">
        <h2 id="collar">Roots at the collar</h2>
        <p class="quiet">As found on {{ now.on }}{{ now.beforeOn ? '; dotted: on ' + now.beforeOn : '' }}.</p>
        <div class="two">
          <s-drawing [drawing]="now.drawing" />
          <ol>
            @for (line of now.lines; track $index) {
              <li>{{ line }}</li>
            }
          </ol>
        </div>
        @if (now.plan; as plan) {
          <s-staged-plan [collar]="now.collar" [cutBy]="plan.by" />
        }
      </section>
    }
  `,
  styles: `
    .two {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(15rem, 100%), 1fr));
      gap: 0 1rem;
      align-items: center;
    }
    s-drawing {
      max-width: 20rem;
    }
  `,
})
export class CollarPanel {
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);

  protected readonly seen = computed(() => {
    const life = this.store.life();
    if (!life) return null;
    const { collar } = life;
    const roots = collar?.look.circlingRoots ?? [];
    if (!collar || roots.length === 0) return null;
    // Under what is there now lies what was seen before: a look, or the same one before something was cut.
    const before = life.inspections.findLast(
      ({ record }) => record.facts.circlingRoots !== null && record.facts.inspectedOn < collar.seenOn,
    )?.record.facts;
    const anchors = collar.look.anchors ?? [];
    const by = limitsOf(life.care.inspection.roots);
    const plan =
      cutByCrew(collar.verdict) && roots.some(isPressing) ? { by, cuts: stagedCuts({ roots, anchors, ...by }) } : null;
    const units = this.session.units();
    return {
      collar: { roots, anchors },
      plan,
      on: sayDay(collar.seenOn),
      beforeOn: before?.circlingRoots?.length ? sayDay(before.inspectedOn) : null,
      lines: roots.map((root) => rootWords(root, units)),
      drawing: collarDial({
        roots,
        anchors,
        before: before?.circlingRoots ?? [],
        plan: plan?.cuts,
        pathDeg: life.assessment?.pavementDeg,
        units,
        sidePx: 320,
      }),
    };
  });
}
