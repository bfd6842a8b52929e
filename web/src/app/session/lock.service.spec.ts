import { webcrypto } from 'node:crypto';
import { TestBed } from '@angular/core/testing';
import { FakeSession } from '../../../testing/fake-session';
import { LockService, mostWrong } from './lock.service';
import { SessionService } from './session.service';

let session: FakeSession & { signOut(what?: string): Promise<void>; out: string[] };
const opened = () => {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [{ provide: SessionService, useValue: session }] });
  return TestBed.inject(LockService);
};

beforeAll(() => {
  Object.defineProperty(globalThis, 'crypto', { value: webcrypto, configurable: true });
});
beforeEach(() => {
  localStorage.clear();
  const out: string[] = [];
  session = Object.assign(new FakeSession(), {
    out,
    signOut: (what = 'forget') => {
      out.push(what);
      return Promise.resolve();
    },
  });
});

describe('the code of a device', () => {
  it('is asked for when the application is opened anew, and opens it', async () => {
    await opened().setCode('2468');
    const lock = opened();
    expect(lock.locked()).toBe(true);
    expect(await lock.unlock('2469')).toEqual({ kind: 'wrong', left: mostWrong - 1 });
    expect(await lock.unlock('2468')).toEqual({ kind: 'open' });
    expect(lock.locked()).toBe(false);
    // The code itself lies nowhere.
    expect(JSON.stringify(localStorage)).not.toContain('2468');
  });
  it('shuts the device after too many wrong ones, counted over closing it, and hides what was taken along', async () => {
    await opened().setCode('1357');
    for (let i = 1; i < mostWrong; i++) expect((await opened().unlock('0000')).kind).toBe('wrong');
    expect((await opened().unlock('0000')).kind).toBe('shut');
    expect(session.out).toEqual(['keep']);
  });
  it('of somebody else opens nothing once one signs in by password', async () => {
    const lock = opened();
    await lock.setCode('1357');
    session.signedIn$.next({ id: 'u2', signIn: 'otto', name: 'Otto', role: 'crew_lead', units: 'metric' });
    expect([lock.hasCode(), lock.locked()]).toEqual([false, false]);
  });
  it.each(['', '123', '123456789', '12a4'])('is not %j', async (code) => {
    await expect(opened().setCode(code)).rejects.toThrow(RangeError);
  });
  it('is gone where somebody takes it away, or leaves', async () => {
    const lock = opened();
    await lock.setCode('1357');
    await session.leave();
    expect(opened().locked()).toBe(false);
  });
});
