import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { ClockQuestion } from '@sombra/contract';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { ClockQuestions } from './clock-questions';

const question: ClockQuestion = {
  recordId: '0190a5c2-0000-7000-8000-00000000000a',
  kind: 'inspection',
  spotId: '0190a5c2-0000-7000-8000-000000000001',
  ref: 'C-0101',
  recordedBy: 'Marta',
  device: 'phone',
  deviceSaid: '2031-01-01T08:00:00Z',
  receivedAt: '2026-06-15T10:30:45.123Z',
};
let fixture: ComponentFixture<ClockQuestions>;
let http: HttpTestingController;
async function render(role: 'coordinator' | 'viewer'): Promise<void> {
  const session = new FakeSession();
  session.user.update((user) => user && { ...user, role });
  TestBed.configureTestingModule({
    providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), provideFakeSession(session)],
  });
  http = TestBed.inject(HttpTestingController);
  fixture = TestBed.createComponent(ClockQuestions);
  await fixture.whenStable();
}
/** What the answer of the server brings is shown a turn later. */
async function settle(): Promise<void> {
  for (let turn = 0; turn < 3; turn++) await fixture.whenStable();
}
const element = (): HTMLElement => fixture.nativeElement as HTMLElement;

async function answer(typed: string | null): Promise<unknown> {
  await render('coordinator');
  http.expectOne('/api/clock-questions').flush([question]);
  await settle();
  const input = element().querySelector('input') as HTMLInputElement;
  if (typed) input.value = typed;
  element()
    .querySelector('form')
    ?.dispatchEvent(new Event('submit', { cancelable: true }));
  const call = http.expectOne(`/api/clock-questions/${question.recordId}`);
  call.flush([]);
  await settle();
  return (call.request.body as { happenedAt: string }).happenedAt;
}

describe('records whose device did not know the time', () => {
  it('are asked about, said to be as they came, and gone then', async () => {
    expect(await answer(null)).toBe(question.receivedAt);
    expect(element().textContent.trim()).toBe('');
  });

  it('are said to be of another moment', async () => {
    expect(await answer('2026-06-14T09:00')).toBe(new Date('2026-06-14T09:00').toISOString());
  });

  it('are not asked of who may not say', async () => {
    await render('viewer');
    http.expectNone('/api/clock-questions');
    expect(element().textContent.trim()).toBe('');
  });
});
