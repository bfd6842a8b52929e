import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  causeNames,
  checkNames,
  checks,
  diagnose,
  diagnosisCases,
  remedyWords,
  sayFacts,
  workedCases,
  defaultCauseRules,
  type CauseRules,
  type CheckCode,
  type Inspection,
} from '@sombra/core';
import { SessionService } from '../session/session.service';
import { CauseTableView } from './cause-table';
import { LevelMark } from '../ui/level-mark';

const nothing: Inspection = {
  inspectedOn: '2026-01-01',
  flareDepthMm: null,
  mulchDepthMm: null,
  mulchContact: null,
  stake: null,
  probe: null,
  circlingRoots: null,
};

/** How looks are judged, for whoever has to answer for it: worked cases, and the table behind a diagnosis. */
@Component({
  selector: 's-judgement-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CauseTableView, LevelMark],
  template: `
    <h1>How looks are judged</h1>
    <p class="quiet">
      By the practice that ships. Limits and days are choices of the practice; a tree is judged by its own. Local codes
      and a qualified arborist come first.
    </p>
    <h2>{{ cases().length }} worked cases</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Worked cases">
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">What is found</th>
            <th scope="col" class="num">Months planted</th>
            <th scope="col">Verdict</th>
            <th scope="col">What to do</th>
            <th scope="col">Who</th>
            <th scope="col" class="num">Within, days</th>
          </tr>
        </thead>
        <tbody>
          @for (one of cases(); track one.said) {
            <tr>
              <th scope="row">
                {{ one.said }}<span class="quiet">{{ one.facts }}</span>
              </th>
              <td class="num">{{ one.months }}</td>
              <td><s-level-mark [level]="one.level" /></td>
              <td>{{ one.act }}</td>
              <td>{{ one.who }}</td>
              <td class="num">{{ one.days }}</td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    <h2>What may be behind it</h2>
    <p class="quiet">
      {{ diagnoses().length }} trees as they are told, and what the table below makes of them, as it stands or is typed.
      The next check is the one that tells most for its minutes.
      @if (otherwise() > 0) {
        <b>{{ otherwise() }} come out otherwise than practitioners hold.</b>
      }
    </p>
    <div class="scroll" tabindex="0" role="region" aria-label="Diagnosis, worked cases">
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">As it is told</th>
            <th scope="col">Likeliest</th>
            <th scope="col" class="num">Of a hundred</th>
            <th scope="col">Look next</th>
            <th scope="col">Held otherwise</th>
          </tr>
        </thead>
        <tbody>
          @for (one of diagnoses(); track one.said) {
            <tr [class.off]="one.off">
              <th scope="row">{{ one.said }}</th>
              <td>{{ one.cause }}</td>
              <td class="num">{{ one.pct }}</td>
              <td>{{ one.next }}</td>
              <td>{{ one.off }}</td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    <h3>The table</h3>
    <s-cause-table (held)="held.set($event)" />
    <p class="quiet">Minutes taken for each check: {{ minutes }}.</p>
  `,
  styles: `
    :host {
      display: block;
      padding: 1rem 1.5rem;
    }
    .scroll {
      overflow-x: auto;
    }
    th .quiet {
      display: block;
      font-weight: 400;
    }
    .off td:last-child {
      color: var(--urgent);
      font-weight: 600;
    }
    @media (max-width: 720px) {
      :host {
        padding: 0.75rem;
      }
    }
  `,
})
export class JudgementPage {
  private readonly session = inject(SessionService);
  protected readonly cases = computed(() =>
    workedCases.map(({ said, monthsSincePlanting, look, level, remedy, dueInDays }) => ({
      said,
      facts: sayFacts<'inspection'>({ ...nothing, ...look }, this.session.units())
        .filter(({ key }) => key !== 'inspectedOn')
        .map(({ name, value }) => `${name}: ${value}`)
        .join('; '),
      months: monthsSincePlanting,
      level,
      act: remedyWords[remedy].act,
      who: remedyWords[remedy].who,
      days: dueInDays ?? '',
    })),
  );
  protected readonly held = signal<CauseRules>(defaultCauseRules);
  protected readonly diagnoses = computed(() =>
    diagnosisCases.map(({ said, seen, absent, cause, nextCheck }) => {
      const found = diagnose({ seen, absent: absent ?? [] }, this.held());
      const [first] = found.causes;
      const [next] = found.checks;
      return {
        said,
        cause: first ? causeNames[first.cause] : '',
        pct: Math.round((first?.share ?? 0) * 100),
        next: next ? checkNames[next.check] : '',
        off: [
          cause && first?.cause !== cause ? causeNames[cause] : '',
          nextCheck && next?.check !== nextCheck ? checkNames[nextCheck] : '',
        ]
          .filter(Boolean)
          .join(', '),
      };
    }),
  );
  protected readonly otherwise = computed(() => this.diagnoses().filter(({ off }) => off !== '').length);
  protected readonly minutes = (Object.keys(checks) as CheckCode[])
    .map((code) => `${checkNames[code].toLowerCase()}, ${checks[code].minutes}`)
    .join('; ');
}
