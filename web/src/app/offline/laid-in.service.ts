import { inject, Injectable, signal } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';
import * as z from 'zod';
import { SessionService } from '../session/session.service';

/** `unable`: this browser lays nothing in, as over plain http. */
export type LaidIn =
  | { readonly kind: 'unable' }
  | { readonly kind: 'laying'; readonly done: number; readonly of: number }
  | { readonly kind: 'ready' };

const manifestSchema = z.object({ hashTable: z.record(z.string(), z.string()) });
/** The worker keeps the files of a version in a cache of this name. */
const ofFiles = /:assets:application:cache$/;

/** Whether the application itself lies on this device, so that it opens without a network. */
@Injectable({ providedIn: 'root' })
export class LaidInService {
  private readonly updates = inject(SwUpdate);
  private readonly session = inject(SessionService);
  private readonly current = signal<LaidIn>({ kind: 'laying', done: 0, of: 0 });
  readonly state = this.current.asReadonly();

  /** Looks again how far it is. */
  async look(): Promise<LaidIn> {
    const now = await this.seen();
    this.current.set(now);
    return now;
  }

  private seen(): Promise<LaidIn> | LaidIn {
    if (!this.updates.isEnabled) return { kind: 'unable' };
    return this.session.away() ? openedFromHere() : howFar();
  }
}

/** Opened without a network: it can only have come from here. */
const openedFromHere = (): LaidIn =>
  navigator.serviceWorker.controller ? { kind: 'ready' } : { kind: 'laying', done: 0, of: 0 };

async function howFar(): Promise<LaidIn> {
  const of = await filesOfApplication();
  if (of === null) return openedFromHere();
  const names = (await caches.keys()).filter((name) => ofFiles.test(name));
  const counts = await Promise.all(names.map(async (name) => (await (await caches.open(name)).keys()).length));
  const done = Math.max(0, ...counts);
  return done >= of ? { kind: 'ready' } : { kind: 'laying', done, of };
}

async function filesOfApplication(): Promise<number | null> {
  try {
    const answer = await fetch('/ngsw.json?ngsw-bypass');
    const { hashTable } = manifestSchema.parse(await answer.json());
    return Object.keys(hashTable).length;
  } catch {
    return null;
  }
}
