import { provideHttpClient } from '@angular/common/http';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { AddPerson, ChangePerson, Person, Role } from '@sombra/contract';
import { of, throwError, type Observable } from 'rxjs';
import { HttpErrorResponse } from '@angular/common/http';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { ProgrammeService } from '../programme/programme.service';
import { PeoplePage } from './people-page';
import { PeopleService } from './people.service';

const person = (change: Partial<Person> = {}): Person => ({
  id: '0190a5c2-0000-7000-8000-000000000001',
  signIn: 'hugo',
  name: 'Hugo Marés',
  role: 'inspector',
  units: 'metric',
  version: 3,
  joined: true,
  disabledAt: null,
  lastSignInAt: '2026-06-14T08:30:00.000Z',
  addedBy: 'Inês',
  addedAt: '2026-01-01T08:00:00.000Z',
  sessions: 2,
  linkUntil: null,
  ...change,
});

let fixture: ComponentFixture<PeoplePage>;
let asked: unknown[];
let programmeUnits: 'metric' | 'us' = 'metric';
let answer: (people: Person[]) => Observable<Person[]>;

async function render(people: Person[], role: Role = 'administrator'): Promise<void> {
  asked = [];
  answer = (kept) => of(kept);
  const session = new FakeSession();
  session.user.update((user) => user && { ...user, role });
  const doors = {
    all: () => of(people),
    add: (added: AddPerson) => {
      asked.push(added);
      return of({ people, link: '/welcome/once' });
    },
    link: (id: string) => {
      asked.push(['link', id]);
      return of({ people, link: '/welcome/again' });
    },
    change: (id: string, change: ChangePerson) => {
      asked.push([id, change]);
      return answer(people);
    },
    endSessions: (id: string) => {
      asked.push(['end', id]);
      return of(people);
    },
  };
  const programme = { provide: ProgrammeService, useValue: { read: () => of({ units: programmeUnits }) } };
  TestBed.configureTestingModule({
    providers: [
      provideHttpClient(),
      provideFakeSession(session),
      { provide: PeopleService, useValue: doors },
      programme,
    ],
  });
  fixture = TestBed.createComponent(PeoplePage);
  await fixture.whenStable();
}
const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
const text = (): string => element().textContent.replace(/\s+/g, ' ');
const button = (name: string) =>
  [...element().querySelectorAll('button')].find((one) => one.textContent.trim() === name);
async function press(name: string): Promise<void> {
  button(name)?.click();
  await fixture.whenStable();
}

describe('people', () => {
  it('are shown with their role, last sign-in and sessions, and what each role may do in words', async () => {
    await render([person(), person({ id: 'x', name: 'New', joined: false, linkUntil: '2026-06-20T00:00:00Z' })]);
    expect(text()).toContain('Hugo Marés · hugo');
    expect(text()).toContain('a link is open until 20 Jun');
    expect(text()).toContain('decide whether a place is planted');
  });

  it('are added with a link that is shown once', async () => {
    await render([person()]);
    const form = element().querySelector('form') as HTMLFormElement;
    const input = (name: string) => form.querySelector(`[name=${name}]`) as HTMLInputElement;
    input('name').value = 'Ema Nova';
    input('signIn').value = 'ema';
    form.dispatchEvent(new Event('submit', { cancelable: true }));
    await fixture.whenStable();
    expect(asked).toMatchObject([{ name: 'Ema Nova', signIn: 'ema', role: 'inspector', units: 'metric' }]);
    expect(text()).toContain('A link for Ema Nova, shown once');
    expect(element().querySelector('code')?.textContent).toContain('/welcome/once');
  });

  it('begin with the units of the programme, whatever those of who adds them', async () => {
    programmeUnits = 'us';
    await render([person()]);
    programmeUnits = 'metric';
    const form = element().querySelector('form') as HTMLFormElement;
    form.dispatchEvent(new Event('submit', { cancelable: true }));
    await fixture.whenStable();
    expect(asked).toMatchObject([{ units: 'us' }]);
  });

  it('are kept out only once somebody says so, and let in again', async () => {
    await render([person()]);
    jest.spyOn(window, 'confirm').mockReturnValueOnce(false).mockReturnValueOnce(true);
    await press('Keep out');
    expect(asked).toEqual([]);
    await press('Keep out');
    expect(asked).toMatchObject([[person().id, { disabled: true, version: 3 }]]);
    TestBed.resetTestingModule();
    await render([person({ disabledAt: '2026-06-01T00:00:00Z' })]);
    expect(button('Link for another password')).toBeUndefined();
    await press('Let in again');
    expect(asked).toMatchObject([[person().id, { disabled: false }]]);
  });

  it('says why a role was not given, and shows what is kept', async () => {
    await render([person({ role: 'administrator' })]);
    const title = 'Nobody would administer the programme any more';
    const error = { type: 'x', code: 'invalid_input', status: 400, title };
    answer = () => throwError(() => new HttpErrorResponse({ status: 400, error }));
    const select = element().querySelector('[aria-label="Role of Hugo Marés"]') as HTMLSelectElement;
    select.value = 'viewer';
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(text()).toContain(title);
    expect(asked).toMatchObject([[person().id, { role: 'viewer' }]]);
  });

  it('are nobody else’s to see', async () => {
    await render([person()], 'coordinator');
    expect(text()).toContain('Only an administrator');
    expect(text()).not.toContain('Hugo');
  });
});
