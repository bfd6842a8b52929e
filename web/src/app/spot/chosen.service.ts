import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { SpotLine } from '@sombra/contract';
import { firstValueFrom } from 'rxjs';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { SpotListService } from './spot-list.service';

/** An address can carry so many numbers; more are kept on this page only. */
const mostInAddress = 150;
export const mostChosen = 500;

/** The trees chosen for one act or a comparison: the same in list and map, and in the address. */
@Injectable({ providedIn: 'root' })
export class ChosenService {
  private readonly view = inject(ViewState);
  private readonly lists = inject(SpotListService);
  private readonly toasts = inject(ToastsService);
  private readonly lines = signal<ReadonlyMap<string, SpotLine>>(new Map());
  /** What the address holds or will hold by our own doing: only other words in it are news. */
  private known = '';
  /** What the address held when it was last looked at. */
  private seen = '';
  readonly chosen = computed(() => [...this.lines().values()]);
  readonly count = computed(() => this.lines().size);

  constructor() {
    effect(() => {
      const refs = this.view.chosenRefs();
      const key = refs.join(',');
      if (key === this.seen) return;
      this.seen = key;
      untracked(() => void this.follow(refs));
    });
  }

  has(spotId: string): boolean {
    return this.lines().has(spotId);
  }

  toggle(line: SpotLine): void {
    const lines = new Map(this.lines());
    if (!lines.delete(line.spotId)) lines.set(line.spotId, line);
    this.keep(lines);
  }

  add(more: readonly SpotLine[]): void {
    this.keep(new Map([...this.lines(), ...more.map((line): [string, SpotLine] => [line.spotId, line])]));
  }

  only(lines: readonly SpotLine[]): void {
    this.keep(new Map(lines.map((line) => [line.spotId, line])));
  }

  clear(): void {
    this.keep(new Map());
  }

  /** Reads what the chosen lines say once more, after an act changed it. */
  async refresh(): Promise<void> {
    const refs = this.chosen().map(({ ref }) => ref);
    const on = this.view.onParam();
    const pages = Array.from({ length: Math.ceil(refs.length / mostInAddress) }, (_, i) =>
      refs.slice(i * mostInAddress, (i + 1) * mostInAddress),
    );
    for (const ref of pages) {
      const filter = { ref, ...(on ? { on } : {}) };
      const { lines } = await firstValueFrom(this.lists.list({ filter, limit: mostInAddress }));
      const fresh = new Map(lines.map((line) => [line.spotId, line]));
      this.lines.update((kept) => new Map([...kept].map(([id, line]) => [id, fresh.get(id) ?? line])));
    }
  }

  private keep(lines: ReadonlyMap<string, SpotLine>): void {
    const kept = new Map([...lines].slice(0, mostChosen));
    if (kept.size < lines.size) this.toasts.say(`${mostChosen} trees can be chosen at once; the rest were left out.`);
    this.lines.set(kept);
    const refs = [...kept.values()].map(({ ref }) => ref);
    this.known = refs.length > mostInAddress ? '' : refs.join(',');
    this.view.set({ chosen: this.known || null });
  }

  /** Takes over what an address names, as after a reload, a link or the back button. */
  private async follow(refs: readonly string[]): Promise<void> {
    const key = refs.join(',');
    if (key === this.known) return;
    this.known = key;
    const on = this.view.onParam();
    const filter = { ref: [...refs], ...(on ? { on } : {}) };
    const none = { lines: [] as SpotLine[] };
    const { lines } =
      refs.length === 0
        ? none
        : await firstValueFrom(this.lists.list({ filter, limit: mostInAddress })).catch(() => none);
    if (this.known === key) this.lines.set(new Map(lines.map((line) => [line.spotId, line])));
  }
}
