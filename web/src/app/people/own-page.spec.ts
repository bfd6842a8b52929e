import { HttpErrorResponse } from '@angular/common/http';
import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { of, throwError } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { OwnPage } from './own-page';

class Session extends FakeSession {
  readonly asked: unknown[] = [];
  readonly fault = signal<HttpErrorResponse | null>(null);
  change(entry: unknown) {
    this.asked.push(entry);
    return of(null);
  }
  changePassword(entry: unknown) {
    this.asked.push(entry);
    const fault = this.fault();
    return fault ? throwError(() => fault) : of(null);
  }
}

let fixture: ComponentFixture<OwnPage>;
let session: Session;
beforeEach(async () => {
  session = new Session();
  TestBed.configureTestingModule({ providers: [provideFakeSession(session)] });
  fixture = TestBed.createComponent(OwnPage);
  await fixture.whenStable();
});
const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
async function type(id: string, value: string): Promise<void> {
  const input = element().querySelector(`#${id}`) as HTMLInputElement;
  input.value = value;
  input.dispatchEvent(new Event('input'));
  input.dispatchEvent(new Event('blur'));
  await fixture.whenStable();
}
async function press(name: string): Promise<void> {
  [...element().querySelectorAll('button')].find((one) => one.textContent.trim() === name)?.click();
  await fixture.whenStable();
}

describe('one’s own page', () => {
  it('changes name and units', async () => {
    await type('own-name', ' Inês Nova ');
    await press('Store');
    expect(session.asked).toEqual([{ name: 'Inês Nova', units: 'metric' }]);
  });

  it('says what a password lacks while it is chosen, and shows it on wish', async () => {
    await type('new-password', 'inesines');
    expect(element().textContent).toContain('must have at least 10 characters, got 8');
    await press('Show');
    expect((element().querySelector('#new-password') as HTMLInputElement).type).toBe('text');
  });

  it('keeps what was typed where the password now is wrong', async () => {
    const issues = [{ path: 'current', message: 'is not your password' }];
    const error = { type: 'x', title: 'This is not your password', status: 400, code: 'invalid_input', issues };
    session.fault.set(new HttpErrorResponse({ status: 400, error }));
    await type('own-password', 'wrong');
    await type('new-password', 'slow walks at dusk');
    await press('Change it');
    expect(element().textContent).toContain('This is not your password');
    expect((element().querySelector('#new-password') as HTMLInputElement).value).toBe('slow walks at dusk');
    session.fault.set(null);
    await press('Change it');
    expect((element().querySelector('#own-password') as HTMLInputElement).value).toBe('');
  });

  it('says what one’s role may do', () => {
    expect(element().textContent).toContain('adopt a practice');
    expect(element().textContent).not.toContain('add people');
  });
});
