import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { roleNames, firstSteps, roles } from '@sombra/contract';
import { glossary, termCodes, termPicture } from '@sombra/core';
import { DrawingView } from '../drawing/drawing-view';
import { SessionService } from '../session/session.service';

/** First steps for whoever reads, those of the other roles, and the words of the work. */
@Component({
  selector: 's-help-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, DrawingView],
  template: `
    <div class="head">
      <h1>Help</h1>
      <button type="button" class="btn btn-outline-primary no-print" (click)="print()">Print</button>
    </div>
    <p class="quiet">
      Keys stand behind <kbd>?</kbd>; <kbd>/</kbd> finds anything by its name. Words with a ? beside them explain
      themselves where they stand.
    </p>
    <section aria-labelledby="help-own">
      <h2 id="help-own">Your first steps, as {{ names[own()].toLowerCase() }}</h2>
      <ol>
        @for (step of steps[own()]; track step.title) {
          <li>
            <a [routerLink]="step.path">{{ step.title }}</a>. {{ step.what }}
          </li>
        }
      </ol>
    </section>
    <section aria-labelledby="help-words">
      <h2 id="help-words">Words of the work</h2>
      <dl>
        @for (term of terms; track term.code) {
          <div [id]="'term-' + term.code">
            <dt>{{ term.name }}</dt>
            <dd>{{ term.what }}</dd>
            @if (term.picture; as drawing) {
              <dd class="picture"><s-drawing [drawing]="drawing" /></dd>
            }
          </div>
        }
      </dl>
    </section>
    <section aria-labelledby="help-others">
      <h2 id="help-others">First steps of others</h2>
      @for (role of others(); track role) {
        <h3>{{ names[role] }}</h3>
        <ol>
          @for (step of steps[role]; track step.title) {
            <li>
              <b>{{ step.title }}.</b> {{ step.what }}
            </li>
          }
        </ol>
      }
    </section>
    <p class="caution">
      Sombra measures, reckons and reminds. Local codes, permits, the utilities' marks and licensed practice come before
      all of it.
    </p>
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem 3rem;
      max-width: 78rem;
    }
    .head {
      display: flex;
      justify-content: space-between;
      align-items: baseline;
    }
    section {
      margin: 1.2rem 0;
    }
    li {
      padding: 0.25rem 0;
    }
    dl {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(min(24rem, 100%), 1fr));
      gap: 0.8rem 2rem;
    }
    dl > div {
      display: grid;
      grid-template-columns: min(9.5rem, 35%) minmax(0, 1fr);
      grid-template-rows: auto 1fr;
      gap: 0.15rem 0.9rem;
      align-items: start;
      break-inside: avoid;
    }
    dt,
    dd {
      grid-column: 2;
    }
    dd.picture {
      grid-column: 1;
      grid-row: 1 / 3;
    }
    dd {
      margin: 0;
    }
    kbd {
      background: var(--shade);
      color: var(--ink);
      border: 1px solid var(--line);
    }
    @media (max-width: 720px) {
      dl {
        grid-template-columns: minmax(0, 1fr);
      }
      dl > div {
        grid-template-columns: min(6.5rem, 35%) minmax(0, 1fr);
      }
    }
  `,
})
export class HelpPage {
  private readonly session = inject(SessionService);
  protected readonly names = roleNames;
  protected readonly steps = firstSteps;
  protected readonly own = computed(() => this.session.user()?.role ?? 'viewer');
  protected readonly others = computed(() => roles.filter((role) => role !== this.own()));
  protected readonly terms = termCodes.map((code) => ({ code, ...glossary[code], picture: termPicture(code) }));

  protected print(): void {
    window.print();
  }
}
