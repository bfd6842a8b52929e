import { inject, Injectable, InjectionToken, type Type } from '@angular/core';
import type { Route } from '@angular/router';
import type { Act } from '@sombra/contract';
import { stageNames, type Stage } from '@sombra/core';

export interface Page {
  readonly path: string;
  readonly name: string;
  /** Pressed after `g`. */
  readonly key: string;
  /** What one must be allowed to do to be shown it; everybody may see the others. */
  readonly act?: Act;
  /** Other words somebody may look for it by, small. */
  readonly words?: string;
  readonly load: NonNullable<Route['loadComponent']>;
  /** Whether no day makes a difference to it: the season is not shown above it. */
  readonly timeless?: true;
  /** Pages behind it, with addresses that hold ids. */
  readonly behind?: readonly Route[];
}

/** Where the work of one stage is done: its bench for one spot, and its pages, which stand in one row. */
export interface StageRoom {
  readonly stage: Stage;
  readonly bench: () => Promise<Type<unknown>>;
  /** What is worth knowing there besides its spots, shown while none is open. */
  readonly note?: () => Promise<Type<unknown>>;
  /** Said where no spot is in it. */
  readonly empty: string;
  readonly pages: readonly Page[];
}

/** A stage whose work is on the whole town, and not on one spot: its first page stands where others have their spots. */
export interface TownRoom {
  readonly stage: Stage;
  readonly home: { readonly name: string; readonly load: Page['load'] };
  readonly pages: readonly Page[];
}

/** Pages of no stage that belong together. */
export interface OfficeRoom {
  readonly stage: null;
  readonly name: string;
  readonly pages: readonly Page[];
}
export type Room = StageRoom | TownRoom | OfficeRoom;

export const isSpotRoom = (room: Room): room is StageRoom => 'bench' in room;

/** All rooms, stages in work order; a stage with nothing to do yet has none. */
export const ROOMS = new InjectionToken<readonly Room[]>('rooms');

/** What stands where, for whoever leads somewhere. */
@Injectable({ providedIn: 'root' })
export class RoomMap {
  private readonly rooms = inject(ROOMS);
  readonly stages = this.rooms.flatMap(({ stage }) => (stage ? [{ path: stage, name: stageNames[stage] }] : []));
  /** Those that have a bench for one spot. */
  readonly spotStages = this.rooms.filter(isSpotRoom).map(({ stage }) => ({ path: stage, name: stageNames[stage] }));
  readonly pages: readonly Page[] = this.rooms.flatMap(({ pages }) => pages);

  ofStage(stage: Stage | null): StageRoom | undefined {
    return this.rooms.filter(isSpotRoom).find((room) => room.stage === stage);
  }

  /** Loads the benches of all stages while there is a network; what fails is loaded when it is needed. */
  preload(): void {
    for (const room of this.rooms.filter(isSpotRoom)) room.bench().catch(() => undefined);
  }

  nameOf(room: Room): string {
    return room.stage ? stageNames[room.stage] : room.name;
  }

  /** The room an address belongs to, by its first part; `undefined` for the desk, the town and what is one's own. */
  roomOf(url: string): Room | undefined {
    const first = `/${url.split(/[/?#]/)[1] ?? ''}`;
    return this.rooms.find(({ stage, pages }) => first === `/${stage}` || pages.some(({ path }) => path === first));
  }

  /** Pages whose name, or another word for it, begins with what was typed. */
  pagesLike(words: string): Page[] {
    const typed = small(words.trim());
    if (typed.length < 2) return [];
    return this.pages.filter(({ name, words: more = '' }) =>
      ` ${small(name)} ${more}`.replaceAll("'", ' ').includes(` ${typed}`),
    );
  }
}

const small = (text: string): string => text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');
