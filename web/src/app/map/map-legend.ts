import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { ThemeService } from '../ui/theme.service';
import { markPicture, type Mark } from './marks';
import { readPalette } from './palette';

const shown: readonly { readonly mark: Mark; readonly says: string }[] = [
  {
    mark: { planted: true, level: 'good', probe: 'dry' },
    says: 'tree, its ball dry by the balance of that day; where none is followed, by the last probe',
  },
  { mark: { planted: true, level: 'good', probe: 'moist' }, says: 'moist' },
  { mark: { planted: true, level: 'good', probe: 'saturated' }, says: 'waterlogged' },
  { mark: { planted: true, level: 'good', probe: 'unknown' }, says: 'neither followed nor probed' },
  { mark: { planted: true, level: 'watch', probe: 'moist' }, says: 'watch' },
  { mark: { planted: true, level: 'act', probe: 'moist' }, says: 'act' },
  { mark: { planted: true, level: 'urgent', probe: 'moist' }, says: 'urgent' },
  { mark: { planted: false, stage: 'ground' }, says: 'spot: measure the ground' },
  { mark: { planted: false, stage: 'match' }, says: 'choose the species' },
  { mark: { planted: false, stage: 'stock' }, says: 'measure the stock' },
  { mark: { planted: false, stage: 'pit' }, says: 'no pit plan' },
  { mark: { planted: false, stage: 'day' }, says: 'ready to plant' },
];

/** What the marks say. */
@Component({
  selector: 's-map-legend',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!onPaper()) {
      <button type="button" [attr.aria-expanded]="open()" (click)="open.set(!open())">
        <i class="bi" [class.bi-chevron-up]="!open()" [class.bi-chevron-down]="open()" aria-hidden="true"></i> Key
      </button>
    }
    @if (open() || onPaper()) {
      <ul>
        @for (one of lines(); track one.says) {
          <li><img [src]="one.picture" alt="" width="22" height="22" /> {{ one.says }}</li>
        }
        <li><span class="dot"></span> further out: a tree that is well, dark where its ball is moist</li>
        <li><span class="ticket"></span> cleared by a locate ticket</li>
        <li><span class="crown"></span> crown, to scale</li>
        <li><span class="day"></span> on the next planting day</li>
      </ul>
    }
  `,
  styles: `
    :host {
      position: absolute;
      left: 0.6rem;
      bottom: 0.6rem;
      background: var(--sheet);
      border: 1px solid var(--edge);
      max-width: calc(100% - 9rem);
    }
    button {
      border: 0;
      background: none;
      color: var(--ink);
      min-height: 34px;
      padding: 0 0.7rem;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0.2rem 0.8rem 0.5rem;
      columns: 2;
      font-size: 0.88rem;
    }
    li {
      display: flex;
      align-items: center;
      gap: 0.4rem;
      min-height: 26px;
      break-inside: avoid;
    }
    .ticket {
      width: 22px;
      height: 12px;
      border: 1.5px dashed var(--act);
      background: color-mix(in srgb, var(--act) 14%, transparent);
    }
    .dot {
      width: 9px;
      height: 9px;
      margin: 0 6.5px;
      border-radius: 50%;
      border: 1px solid var(--ink);
      background: var(--water);
    }
    .crown,
    .day {
      width: 18px;
      height: 18px;
      margin: 0 2px;
      border-radius: 50%;
      border: 1px solid var(--leaf);
      background: color-mix(in srgb, var(--leaf) 28%, transparent);
    }
    .day {
      border: 1.5px solid var(--ink);
      background: none;
    }
    @media print {
      :host {
        position: static;
        border: 0;
        max-width: none;
      }
      ul {
        columns: 4;
      }
    }
    @media (max-width: 720px) {
      :host {
        left: 0;
        bottom: 0;
        width: 4.5rem;
        max-width: none;
        border-width: 1px 0 0;
      }
      button {
        width: 100%;
        min-height: 47px;
        padding: 0;
      }
      ul {
        position: absolute;
        bottom: 48px;
        left: 0;
        width: min(22rem, 100vw);
        max-height: 60vh;
        overflow: auto;
        columns: 1;
        font-size: 1rem;
        background: var(--sheet);
        border: 1px solid var(--edge);
      }
    }
  `,
})
export class MapLegend {
  private readonly theme = inject(ThemeService);
  /** On a sheet the key is always there. */
  readonly onPaper = input(false);
  protected readonly open = signal(false);
  protected readonly lines = computed(() => {
    this.theme.dark();
    const colours = readPalette();
    return shown.map(({ mark, says }) => ({ says, picture: markPicture(mark, colours) }));
  });
}
