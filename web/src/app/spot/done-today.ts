import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal, untracked } from '@angular/core';
import {
  isPressing,
  proofTapNames,
  remedyProofs,
  tapSeen,
  type CirclingRoot,
  type RemedyCode,
  type RemedySeen,
} from '@sombra/core';
import { QuantityInput } from '../fields/quantity-input';

/** What was seen, in words and as facts. */
interface Tap {
  readonly says: string;
  readonly seen: RemedySeen;
}

/** *Done today*, asking for what shows it: a tap, a measure, the roots that are left; only the word where nothing can. */
@Component({
  selector: 's-done-today',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [QuantityInput],
  template: `
    @if (plain()) {
      <button type="button" class="btn btn-primary" [disabled]="off()" (click)="did.emit(undefined)">
        Done today{{ on() }}
      </button>
    } @else {
      @if (asksBefore() && fact(); as asked) {
        <s-quantity-input
          class="before"
          [fact]="asked"
          [label]="
            asked === 'flareDepthMm' ? 'Before you begin: flare below the surface' : 'Before you begin: mulch depth'
          "
          [value]="before()"
          [required]="false"
          (valueChange)="findBefore($event)"
        />
      }
      <div class="shows" role="group" [attr.aria-label]="'Done today' + on() + ', shown by'">
        <span>Done today{{ on() }}:</span>
        @for (tap of taps(); track tap.says) {
          <button type="button" class="btn btn-outline-primary" [disabled]="off()" (click)="did.emit(tap.seen)">
            {{ tap.says }}
          </button>
        }
        @if (fact(); as asked) {
          <span class="measured">
            <s-quantity-input
              [fact]="asked"
              [label]="asked === 'flareDepthMm' ? 'or flare below the surface now' : 'Mulch depth now'"
              [value]="value()"
              [required]="false"
              (valueChange)="value.set($event)"
            />
            <button
              type="button"
              class="btn btn-primary"
              [disabled]="off() || value() === null"
              (click)="did.emit(measured())"
            >
              Done, as measured
            </button>
          </span>
        }
        @if (proof().kind === 'roots' && roots() === null) {
          <span>what is left of the roots is said tree by tree: open each.</span>
        }
      </div>
    }
  `,
  styles: `
    .shows {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem 0.5rem;
      align-items: center;
    }
    .measured {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      align-items: end;
    }
    .before {
      display: block;
      margin-bottom: 0.5rem;
    }
    .btn {
      min-height: 44px;
      text-align: left;
    }
  `,
})
export class DoneToday {
  readonly remedy = input.required<RemedyCode>();
  readonly busy = input(false);
  /** On so many trees at once; `null` for the one that is open. */
  readonly count = input<number | null>(null);
  /** Roots as last seen at the collar; `null` where several trees are meant, or nobody uncovered them. */
  readonly roots = input<readonly CirclingRoot[] | null>(null);
  /** Of these, the ones this season's plan cuts. */
  readonly cuts = input<readonly number[]>([]);
  /** Asks for the measure before the work too, beside what the last look found. */
  readonly asksBefore = input(false);
  readonly found = output<number | null>();
  readonly did = output<RemedySeen | undefined>();

  protected readonly value = signal<number | null>(null);
  protected readonly before = signal<number | null>(null);
  protected readonly proof = computed(() => remedyProofs[this.remedy()]);
  protected readonly plain = computed(() => this.proof().kind === 'word');
  protected readonly on = computed(() => (this.count() === null ? '' : ` on ${this.count()}`));
  protected readonly off = computed(() => this.busy() || this.count() === 0);
  protected readonly fact = computed(() => {
    const proof = this.proof();
    return proof.kind === 'measure' ? proof.fact : null;
  });
  protected readonly taps = computed<readonly Tap[]>(() => {
    const proof = this.proof();
    if (proof.kind === 'taps') return proof.taps.map((tap) => ({ says: proofTapNames[tap], seen: tapSeen[tap] }));
    if (proof.kind === 'measure' && proof.fact === 'flareDepthMm') {
      return [{ says: 'the flare shows at the surface', seen: { flareDepthMm: 0 } }];
    }
    return proof.kind === 'roots' ? this.rootTaps() : [];
  });

  constructor() {
    // What was typed for one remedy is not the measure of another.
    effect(() => {
      this.remedy();
      untracked(() => {
        this.value.set(null);
        this.before.set(null);
      });
    });
  }

  protected findBefore(value: number | null): void {
    this.before.set(value);
    this.found.emit(value);
  }

  protected measured(): RemedySeen {
    const [fact, value] = [this.fact(), this.value()];
    return fact && value !== null ? { [fact]: value } : {};
  }

  private rootTaps(): Tap[] {
    const roots = this.roots();
    if (this.remedy() === 'examine_roots') {
      return this.count() === null ? [{ says: 'no root circles or presses', seen: { circlingRoots: [] } }] : [];
    }
    if (roots === null) return [];
    const cut = new Set(this.cuts());
    const left = roots.filter((_, i) => !cut.has(i));
    const planned = left.some(isPressing) && cut.size > 0;
    const named = [...cut].map((i) => i + 1).join(', ');
    return [
      ...(planned
        ? [
            {
              says: `as planned for this season: root${cut.size === 1 ? '' : 's'} ${named} cut`,
              seen: { circlingRoots: left },
            },
          ]
        : []),
      { says: 'nothing presses any more', seen: { circlingRoots: roots.filter((root) => !isPressing(root)) } },
    ];
  }
}
