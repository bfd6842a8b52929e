import { Injectable, signal } from '@angular/core';
import type { SpotLine, SpotSort } from '@sombra/contract';
import type { Column } from './columns';

const storeKey = 'sombra.columnWidths';
/** Beside the text of a cell, its gap and the mark of a level. px */
const [besidePx, markPx] = [6, 24];
/** No column is narrower than a finger, nor wider than half a desk. px */
const [leastPx, mostPx] = [44, 460];
/** What a column of names may be squeezed to before the list scrolls sideways. px */
const squeezedPx = 112;
const sampleFont = '15.2px "Atkinson Hyperlegible Next Variable", sans-serif';

const canvas = 'OffscreenCanvas' in globalThis ? new OffscreenCanvas(1, 1).getContext('2d') : null;

/** Width of a text as the list sets it, px; about so where nothing can measure it. */
function widthOf(text: string): number {
  if (!canvas) return text.length * 8.2;
  canvas.font = sampleFont;
  return canvas.measureText(text).width;
}

const within = (px: number): number => Math.round(Math.min(mostPx, Math.max(leastPx, px)));

/** How wide each column of a list is: as wide as what stands in it, until somebody draws it otherwise; this device keeps that. */
@Injectable({ providedIn: 'root' })
export class ColumnWidths {
  private readonly drawn = signal<Partial<Readonly<Record<SpotSort, number>>>>(read());

  /** Widths of some columns for some lines, px. */
  of(columns: readonly Column[], lines: readonly SpotLine[], on: string): Map<SpotSort, number> {
    return new Map(
      columns.map((column) => {
        const texts = [`${column.name} ▲`, ...lines.map((line) => column.cell(line, on))];
        const longest = Math.max(...[...new Set(texts)].map(widthOf));
        const px = within(longest + besidePx + (column.key === 'level' ? markPx : 0));
        return [column.key, this.drawn()[column.key] ?? px];
      }),
    );
  }

  /** Tracks of a grid: names give way before the rest does; what is left over stays at the end. */
  tracks(widths: ReadonlyMap<SpotSort, number>): string {
    const drawn = this.drawn();
    const track = ([key, px]: [SpotSort, number]): string => {
      const gives = (key === 'place' || key === 'species') && drawn[key] === undefined;
      return gives ? `minmax(${Math.min(px, squeezedPx)}px, ${px}px)` : `${px}px`;
    };
    return [...[...widths].map(track), '1fr'].join(' ');
  }

  draw(key: SpotSort, px: number | null): void {
    this.drawn.update(({ [key]: _before, ...others }) => (px === null ? others : { ...others, [key]: within(px) }));
    localStorage.setItem(storeKey, JSON.stringify(this.drawn()));
  }
}

function read(): Partial<Record<SpotSort, number>> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(storeKey) ?? '{}');
    const entries = Object.entries(kept ?? {}).filter(([, px]) => typeof px === 'number');
    return Object.fromEntries(entries.map(([key, px]) => [key, within(px as number)]));
  } catch {
    return {};
  }
}
