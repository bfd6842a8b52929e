import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { OpenCare } from '@sombra/contract';
import {
  bucketsOf,
  fingerClasses,
  fingerNames,
  fingerPicture,
  formatNumber,
  sayBucketCount,
  type FingerClass,
} from '@sombra/core';
import { firstValueFrom } from 'rxjs';
import { v7 as uuidv7 } from 'uuid';
import { DrawingView } from '../drawing/drawing-view';
import { textOf } from '../fields/event-values';
import { readProblem, sayProblem } from '../ui/problem';
import { sayDate } from '../ui/say-date';
import { DateInput } from '../fields/date-input';
import { CareDeputies } from './care-deputies';
import { CareTrouble } from './care-trouble';
import { sayCareNext, unusual, usualFor } from './care-words';
import { CareService } from './care.service';

const bucketStep = 0.5;

/** The page of who keeps a tree: when it wants water, how much in their own buckets, and one tap to say that it was given. */
@Component({
  selector: 's-care-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DateInput, DrawingView, CareDeputies, CareTrouble],
  templateUrl: './care-page.html',
  styleUrls: ['../day/join-page.scss', './care-page.scss'],
})
export class CarePage {
  readonly token = input.required<string>();
  private readonly doors = inject(CareService);
  protected readonly textOf = textOf;
  protected readonly say = sayDate;
  protected readonly fingers = fingerClasses.map((one) => ({
    one,
    name: fingerNames[one],
    picture: fingerPicture(one),
  }));
  protected readonly unusual = unusual;
  protected readonly tree = signal<OpenCare | null>(null);
  protected readonly fault = signal<string | null>(null);
  protected readonly busy = signal(false);
  protected readonly thanks = signal<string | null>(null);
  /** Opened by the last line of a reminder: the button stands first, and nothing happens before it is pressed. */
  protected readonly asksToStop = new URLSearchParams(location.search).has('stop');

  protected readonly next = computed(() => {
    const now = this.tree();
    return now && sayCareNext(now);
  });
  protected readonly usual = computed(() => {
    const now = this.tree();
    return now ? usualFor(now.plantedOn, now.today) : [];
  });

  protected readonly finger = signal<FingerClass | null>(null);
  private readonly typedCount = signal<number | null>(null);
  protected readonly count = computed(() => {
    const now = this.tree();
    const asked = now?.next?.kind === 'water' ? bucketsOf(now.next.litres, now.bucketL) : 1;
    return this.typedCount() ?? asked;
  });
  protected readonly litres = computed(() => this.count() * (this.tree()?.bucketL ?? 10));
  protected readonly countWords = computed(() => sayBucketCount(this.count()));
  protected readonly litreWords = computed(() => `${formatNumber(this.litres(), 0)} L`);
  protected readonly day = signal<string | null>(null);
  protected readonly wateredOn = computed(() => this.day() ?? this.tree()?.today ?? '');
  /** Sent again after a cut it is the same watering; of another amount or day it is another. */
  private readonly wateringId = computed(() => {
    this.count();
    this.wateredOn();
    this.poured();
    return uuidv7();
  });
  private readonly poured = signal(0);
  protected readonly told = computed(() =>
    (this.tree()?.said ?? []).map((one) => ({
      ...one,
      what: one.kind === 'watered' ? `Watered, ${formatNumber(one.litres ?? 0, 0)} L` : one.words,
      day: sayDate(one.saidAt.slice(0, 10)),
    })),
  );

  constructor() {
    effect(() => {
      const token = this.token();
      untracked(() => void this.act(() => firstValueFrom(this.doors.open(token))));
    });
  }

  protected step(by: 1 | -1): void {
    this.typedCount.set(Math.max(bucketStep, this.count() + by * bucketStep));
  }

  protected async watered(): Promise<void> {
    const finger = this.finger();
    const told = {
      id: this.wateringId(),
      wateredOn: this.wateredOn(),
      litres: this.litres(),
      ...(finger ? { finger } : {}),
    };
    if (await this.act(() => firstValueFrom(this.doors.watered(this.token(), told)))) {
      this.thanks.set(`Thank you: ${this.litreWords()} on ${sayDate(told.wateredOn)} is noted.`);
      this.poured.update((count) => count + 1);
      this.typedCount.set(null);
      this.finger.set(null);
      this.day.set(null);
    }
  }

  protected async setLetters(letters: boolean): Promise<void> {
    if (await this.act(() => firstValueFrom(this.doors.wish(this.token(), { letters })))) {
      this.thanks.set(letters ? 'We write again when it wants water.' : 'No more reminders are sent to you.');
    }
  }

  protected async setBucket(text: string): Promise<void> {
    const bucketL = Number(text.replace(',', '.'));
    if (!Number.isFinite(bucketL) || bucketL < 1 || bucketL > 50) {
      this.fault.set(`Your bucket must be within 1 L and 50 L, got ${text}.`);
      return;
    }
    this.typedCount.set(null);
    await this.act(() => firstValueFrom(this.doors.wish(this.token(), { bucketL })));
  }

  protected shown(care: OpenCare): void {
    this.tree.set(care);
    this.fault.set(null);
  }

  private async act(what: () => Promise<OpenCare>): Promise<boolean> {
    this.busy.set(true);
    try {
      this.shown(await what());
      return true;
    } catch (error) {
      this.thanks.set(null);
      this.fault.set(sayProblem(readProblem(error)));
      return false;
    } finally {
      this.busy.set(false);
    }
  }
}
