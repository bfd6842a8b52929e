import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import type { SpotLine, SpotSort } from '@sombra/contract';
import { firstValueFrom, type Observable } from 'rxjs';
import { LevelMark } from '../ui/level-mark';
import { ViewState } from '../ui/view-state.service';
import { ChosenService } from '../spot/chosen.service';
import { ColumnWidths } from './column-widths';
import { columns, type Column } from './columns';
import type { SpotSource } from './spot-source';

/** Lines that say how wide a column has to be. */
const measuredLines = 300;

/** A list of any length: only the lines on screen are drawn. One line is open on the bench, any may be chosen. */
@Component({
  selector: 's-spot-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, RouterLink, LevelMark],
  templateUrl: './spot-table.html',
  styleUrl: './spot-table.scss',
})
export class SpotTable {
  readonly source = input.required<SpotSource>();
  readonly path = input.required<string>();
  readonly openId = input<string>();
  /** Finds the place of a spot in the whole list. */
  readonly rank = input.required<(spotId: string) => Observable<number | null>>();
  /** Names the list as it is filtered and ordered: where it was left is remembered by it. */
  readonly listKey = input('');
  readonly shown = input.required<readonly SpotSort[]>();
  readonly sort = input.required<SpotSort>();
  readonly down = input.required<boolean>();
  readonly sorted = output<{ sort: SpotSort; down: boolean }>();
  readonly opened = output<SpotLine>();
  protected readonly chosen = inject(ChosenService);
  private readonly sizes = inject(ColumnWidths);
  protected readonly view = inject(ViewState);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  /** The line the keys stand on. */
  protected readonly active = signal(0);
  private anchor = 0;
  /** The last choice was made in this list: the keys stay where they are. */
  private choseHere = false;
  private returned = false;
  private readonly place = computed(() => `sombra.list ${this.path()} ${this.listKey()}`);

  protected readonly rowPx = window.innerWidth <= 720 ? 62 : 40;
  protected readonly columns = computed(() => columns.filter(({ key }) => this.shown().includes(key)));
  private readonly widths = computed(() => {
    this.source().version();
    return this.sizes.of(this.columns(), this.source().between(0, measuredLines), this.view.on());
  });
  protected readonly grid = computed(() => `2.4rem ${this.sizes.tracks(this.widths())}`);
  private drawing: { readonly key: SpotSort; readonly fromPx: number; readonly widthPx: number } | null = null;

  constructor() {
    effect(() => {
      this.source();
      this.active.set(0);
      this.returned = false;
      this.viewport()?.scrollToIndex(0);
    });
    // Back, or after a reload, a list stands where it was left.
    effect(() => {
      const viewport = this.viewport();
      if (this.source().total() === null || this.returned || !viewport) return;
      this.returned = true;
      const left = Number(sessionStorage.getItem(this.place()) ?? 0);
      if (left > 0 && !untracked(this.openId)) setTimeout(() => viewport.scrollToIndex(left));
    });
    effect(() => {
      const spotId = this.openId();
      if (spotId && this.source().total() !== null) untracked(() => void this.reveal(spotId));
    });
    effect(() => {
      const chosen = this.chosen.chosen();
      const elsewhere = !this.choseHere;
      this.choseHere = false;
      if (elsewhere && this.source().total() !== null && !this.openId()) untracked(() => void this.revealFirst(chosen));
    });
  }

  /** Trees chosen on the map or by a link are brought into view, where none of them is. */
  private async revealFirst(chosen: readonly SpotLine[]): Promise<void> {
    const [first] = chosen;
    const { start, end } = this.range();
    const at = (line: SpotLine) => this.source().indexOf(line.spotId);
    if (!first || chosen.some((line) => at(line) >= start && at(line) < end)) return;
    const index = at(first) >= 0 ? at(first) : await firstValueFrom(this.rank()(first.spotId));
    if (index !== null && this.chosen.has(first.spotId)) this.go(index);
  }

  /** A spot opened on the map or by a link is brought into view here too. */
  private async reveal(spotId: string): Promise<void> {
    if (this.source().at(this.active())?.spotId === spotId) return;
    const known = this.source().indexOf(spotId);
    const index = known >= 0 ? known : await firstValueFrom(this.rank()(spotId));
    if (index !== null && this.openId() === spotId) this.go(index);
  }

  protected leave(index: number): void {
    if (this.returned) sessionStorage.setItem(this.place(), String(index));
  }

  range(): { start: number; end: number } {
    return this.viewport()?.getRenderedRange() ?? { start: 0, end: 1 };
  }

  protected ariaSort(key: SpotSort): 'ascending' | 'descending' | 'none' {
    if (key !== this.sort()) return 'none';
    return this.down() ? 'descending' : 'ascending';
  }

  protected sortBy({ key }: Column): void {
    this.sorted.emit({ sort: key, down: key === this.sort() && !this.down() });
  }

  protected open(index: number, line: SpotLine | undefined): void {
    this.active.set(index);
    this.anchor = index;
    if (line) this.opened.emit(line);
  }

  protected choose(event: Event, index: number, line: SpotLine | undefined): void {
    event.stopPropagation();
    this.active.set(index);
    if (!line) return;
    this.choseHere = true;
    if (event instanceof MouseEvent && event.shiftKey) this.chosen.add(this.source().between(this.anchor, index));
    else this.chosen.toggle(line);
    this.anchor = index;
  }

  /** A click with a modifier chooses, a plain one opens. */
  protected click(event: MouseEvent): void {
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-index]');
    if (!row) return;
    const index = Number(row.dataset['index']);
    const line = this.source().at(index);
    if (event.ctrlKey || event.metaKey || event.shiftKey) {
      event.preventDefault();
      this.choose(event, index, line);
    } else this.open(index, line);
  }

  protected key(event: KeyboardEvent): void {
    // The heads have keys of their own.
    if (event.target instanceof HTMLElement && event.target.closest('.head')) return;
    const last = (this.source().total() ?? 1) - 1;
    if (event.key === 'a' && (event.ctrlKey || event.metaKey)) {
      this.choseHere = true;
      this.chosen.add(this.source().between(0, last));
      return event.preventDefault();
    }
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 12, PageUp: -12, Home: -last, End: last }[event.key];
    const line = this.source().at(this.active());
    if (step !== undefined) {
      this.go(Math.min(last, Math.max(0, this.active() + step)));
      if (event.shiftKey) {
        this.choseHere = true;
        this.chosen.add(this.source().between(this.anchor, this.active()));
      } else this.anchor = this.active();
    } else if (event.key === 'Enter') {
      this.open(this.active(), line);
    } else if (event.key === ' ') {
      this.choose(event, this.active(), line);
    } else return;
    event.preventDefault();
  }

  /** The edge of a heading is drawn to where its column is to end; twice pressed it fits what stands in it again. */
  protected draw(event: PointerEvent, key: SpotSort): void {
    if (event.type === 'pointerdown') {
      (event.target as HTMLElement).setPointerCapture(event.pointerId);
      this.drawing = { key, fromPx: event.clientX, widthPx: this.widths().get(key) ?? 0 };
      return;
    }
    if (!this.drawing) return;
    this.sizes.draw(key, this.drawing.widthPx + event.clientX - this.drawing.fromPx);
    if (event.type !== 'pointermove') this.drawing = null;
  }
  protected fit(key: SpotSort): void {
    this.drawing = null;
    this.sizes.draw(key, null);
  }
  /** By keys on its heading: Shift with an arrow. */
  protected drawByKey(event: KeyboardEvent, key: SpotSort): void {
    const by = { ArrowLeft: -16, ArrowRight: 16 }[event.key];
    if (!event.shiftKey || by === undefined) return;
    event.preventDefault();
    this.sizes.draw(key, (this.widths().get(key) ?? 0) + by);
  }

  private go(index: number): void {
    this.active.set(index);
    const viewport = this.viewport();
    if (!viewport) return;
    const top = viewport.measureScrollOffset();
    const height = viewport.getViewportSize();
    const at = index * this.rowPx;
    if (at < top) viewport.scrollToOffset(at);
    else if (at + this.rowPx > top + height) viewport.scrollToOffset(at + this.rowPx - height);
  }
}
