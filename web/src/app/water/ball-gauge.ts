import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** Past this a ball is drawn no fuller. */
const mostShare = 1.4;
const x = (share: number): number => (100 * Math.min(mostShare, Math.max(0, share))) / mostShare;

/** How full a ball is, of what it holds, with how unsure that is; the line is half, below which a tree is stressed. */
@Component({
  selector: 's-ball-gauge',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="bar" aria-hidden="true">
      <span class="full" [class.dry]="share() < 0.5" [class.over]="share() > 1.05" [style.width.%]="at()"></span>
      <span class="error" [style.left.%]="low()" [style.width.%]="high() - low()"></span>
      <span class="half"></span>
    </span>
    <span class="num">{{ words() }}</span>
  `,
  styles: `
    :host {
      display: inline-flex;
      gap: 0.5rem;
      align-items: center;
      white-space: nowrap;
    }
    .bar {
      position: relative;
      width: 110px;
      height: 16px;
      background: var(--shade);
      border: 1px solid var(--edge);
    }
    .full {
      position: absolute;
      inset: 0 auto 0 0;
      background: var(--leaf);
    }
    .dry {
      background: var(--sun);
    }
    .over {
      background: var(--water);
    }
    .error {
      position: absolute;
      top: 6px;
      height: 2px;
      background: var(--ink);
    }
    .half {
      position: absolute;
      left: 35.7%;
      top: -3px;
      bottom: -3px;
      width: 1px;
      background: var(--ink);
    }
  `,
})
export class BallGauge {
  readonly share = input.required<number>();
  readonly errorShare = input.required<number>();
  protected readonly at = computed(() => x(this.share()));
  protected readonly low = computed(() => x(this.share() - this.errorShare()));
  protected readonly high = computed(() => x(this.share() + this.errorShare()));
  protected readonly words = computed(
    () => `${Math.round(this.share() * 100)} % ± ${Math.round(this.errorShare() * 100)}`,
  );
}
