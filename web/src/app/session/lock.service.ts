import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { filter, fromEvent } from 'rxjs';
import * as z from 'zod';
import { SessionService } from './session.service';

const key = 'sombra.lock';
const lockSchema = z.object({ userId: z.string(), salt: z.string(), hash: z.string(), wrong: z.number() });
type Lock = z.infer<typeof lockSchema>;

/** A phone that lay in a pocket so long asks for the code. */
export const locksAfterMs = 3 * 60_000;
export const mostWrong = 5;
const codePattern = /^\d{4,8}$/;
const rounds = 250_000;

export type Unlocked =
  { readonly kind: 'open' } | { readonly kind: 'wrong'; readonly left: number } | { readonly kind: 'shut' };

/**
 * A short code that opens the screen of a phone several people use, after a full sign-in on it. It keeps hands away, not
 * whoever takes the phone apart: for that the phone has its own lock. Too many wrong codes end the session here.
 */
@Injectable({ providedIn: 'root' })
export class LockService {
  private readonly session = inject(SessionService);
  private readonly closed = signal(false);
  private readonly coded = signal(read() !== null);
  readonly locked = this.closed.asReadonly();
  /** Whether the signed-in person has a code on this device. */
  readonly hasCode = this.coded.asReadonly();
  private hiddenAt: number | null = null;

  constructor() {
    this.session.beforeLeaving(() => Promise.resolve(this.drop()));
    this.session.signedIn$.pipe(takeUntilDestroyed()).subscribe(({ id }) => {
      // Somebody else signed in by password: the code of the one before opens nothing.
      const lock = read();
      if (lock && lock.userId !== id) this.drop();
    });
    // Opened anew, it asks: whoever holds the phone now need not be who put it away.
    if (read() !== null) this.closed.set(true);
    fromEvent(document, 'visibilitychange')
      .pipe(
        filter(() => read() !== null),
        takeUntilDestroyed(),
      )
      .subscribe(() => {
        if (document.hidden) this.hiddenAt = Date.now();
        else if (this.hiddenAt !== null && Date.now() - this.hiddenAt > locksAfterMs) this.lock();
      });
  }

  lock(): void {
    if (read() !== null) this.closed.set(true);
  }

  /** @throws RangeError for a code that is none */
  async setCode(code: string): Promise<void> {
    if (!codePattern.test(code)) throw new RangeError('The code must have 4 to 8 digits');
    const salt = toHex(crypto.getRandomValues(new Uint8Array(16)));
    const userId = this.session.user()?.id ?? '';
    keep({ userId, salt, hash: await hashOf(code, salt), wrong: 0 });
    this.coded.set(true);
  }

  /** Takes the code away; the screen opens without. */
  drop(): void {
    localStorage.removeItem(key);
    this.coded.set(false);
    this.closed.set(false);
  }

  async unlock(code: string): Promise<Unlocked> {
    const lock = read();
    if (!lock) {
      this.drop();
      return { kind: 'open' };
    }
    // Counted before it is looked at: closing the page in between gains no try.
    keep({ ...lock, wrong: lock.wrong + 1 });
    if ((await hashOf(code, lock.salt)) === lock.hash) {
      keep({ ...lock, wrong: 0 });
      this.closed.set(false);
      return { kind: 'open' };
    }
    if (lock.wrong + 1 < mostWrong) return { kind: 'wrong', left: mostWrong - lock.wrong - 1 };
    // What was taken along stays hidden until a network and the password; what was not sent is sealed.
    void this.session.signOut('keep');
    return { kind: 'shut' };
  }
}

function read(): Lock | null {
  try {
    const kept = lockSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return kept.success ? kept.data : null;
  } catch {
    return null;
  }
}
const keep = (lock: Lock): void => localStorage.setItem(key, JSON.stringify(lock));

const toHex = (bytes: Uint8Array): string => [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
const fromHex = (hex: string): Uint8Array<ArrayBuffer> =>
  new Uint8Array((hex.match(/../g) ?? []).map((pair) => parseInt(pair, 16)));

async function hashOf(code: string, salt: string): Promise<string> {
  const { subtle } = crypto;
  const material = await subtle.importKey('raw', new TextEncoder().encode(code), 'PBKDF2', false, ['deriveBits']);
  const derive = { name: 'PBKDF2', hash: 'SHA-256', salt: fromHex(salt), iterations: rounds };
  return toHex(new Uint8Array(await subtle.deriveBits(derive, material, 256)));
}
