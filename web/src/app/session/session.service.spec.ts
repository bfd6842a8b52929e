import { HttpClient, provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { Session } from '@sombra/contract';
import { sessionInterceptor } from './session-interceptor';
import { SessionService } from './session.service';

let service: SessionService;
let http: HttpTestingController;

const user = {
  id: '0190a5c2-0000-4000-8000-000000000001',
  signIn: 'ines',
  name: 'Inês',
  role: 'coordinator',
  units: 'us',
} as const;
const session = (change: Partial<Session> = {}): Session => ({
  user,
  csrfToken: 'first',
  today: '2026-06-15',
  programme: { name: 'Shade Walks', demo: true },
  ...change,
});
const asked = () => http.expectOne({ method: 'GET', url: '/api/session' });

beforeEach(() => {
  localStorage.clear();
  TestBed.configureTestingModule({
    providers: [provideHttpClient(withInterceptors([sessionInterceptor])), provideHttpClientTesting()],
  });
  service = TestBed.inject(SessionService);
  http = TestBed.inject(HttpTestingController);
});
afterEach(() => {
  jest.restoreAllMocks();
  http.verify();
});

describe('session', () => {
  it('asks who is signed in, and reads their units and the day', () => {
    expect(service.state()).toBe('asking');
    asked().flush(session());
    expect([service.state(), service.units(), service.today()]).toEqual(['in', 'us', '2026-06-15']);
  });

  it('opens with what this device kept where nothing is reached, and not where the server refuses', () => {
    asked().flush(session());
    const names: string[] = [];
    service.signedIn$.subscribe(({ name }) => names.push(name));
    service.ask();
    asked().error(new ProgressEvent('error'));
    expect([service.state(), service.away(), service.user()?.name, names]).toEqual(['in', true, 'Inês', ['Inês']]);
    // The network is back, and the session still stands.
    window.dispatchEvent(new Event('online'));
    asked().flush(session({ csrfToken: 'second' }));
    expect([service.away(), service.csrfToken(), names.length]).toEqual([false, 'second', 2]);
    service.ask();
    asked().flush(
      { type: 'x', title: 'x', status: 503, code: 'database_unavailable' },
      { status: 503, statusText: 'no database' },
    );
    expect(service.state()).toBe('unreachable');
    // A proxy whose server is away says nothing of who may do what.
    service.ask();
    asked().flush('<html>Bad Gateway</html>', { status: 502, statusText: 'Bad Gateway' });
    expect([service.state(), service.away()]).toEqual(['in', true]);
    service.ask();
    asked().flush(
      { type: 'x', title: 'x', status: 503, code: 'database_unavailable' },
      { status: 503, statusText: 'no database' },
    );
    expect(service.state()).toBe('unreachable');
  });

  it('asks for the password again where the session ran out while there was no network', () => {
    asked().flush(session());
    service.ask();
    asked().error(new ProgressEvent('error'), { status: 0 });
    window.dispatchEvent(new Event('online'));
    asked().flush(session({ user: null, today: null }));
    asked().flush(session({ user: null, today: null, csrfToken: 'third' }));
    expect([service.state(), service.csrfToken(), service.user()?.name]).toEqual(['expired', 'third', 'Inês']);
  });

  it('turns the day over midnight: by the server where it is reached, by the zone where not', () => {
    const eve = Date.parse('2020-06-15T22:59:00Z');
    const clock = jest.spyOn(Date, 'now').mockReturnValue(eve);
    const at = (time: number) => ({ now: new Date(time).toISOString() });
    const programme = { name: 'Shade Walks', demo: true, timeZone: 'Europe/Lisbon' };
    asked().flush(session({ today: '2020-06-15', programme, ...at(eve) }));
    const look = () => document.dispatchEvent(new Event('visibilitychange'));
    look();
    http.expectNone('/api/session');
    // One minute later it is midnight in Lisbon.
    clock.mockReturnValue(eve + 90_000);
    look();
    asked().flush(session({ today: '2020-06-16', programme, ...at(eve + 90_000) }));
    expect(service.today()).toBe('2020-06-16');
    service.ask();
    asked().error(new ProgressEvent('error'));
    expect([service.away(), service.today()]).toEqual([true, '2020-06-16']);
    clock.mockReturnValue(eve + 86_400_000 + 90_000);
    look();
    asked().error(new ProgressEvent('error'));
    expect([service.away(), service.today()]).toEqual([true, '2020-06-17']);
  });

  it('asks for the password where the session ran out before midnight, and keeps the page', () => {
    const eve = Date.parse('2020-06-15T22:59:00Z');
    const clock = jest.spyOn(Date, 'now').mockReturnValue(eve);
    const programme = { name: 'Shade Walks', demo: true, timeZone: 'Europe/Lisbon' };
    asked().flush(session({ today: '2020-06-15', programme, now: new Date(eve).toISOString() }));
    clock.mockReturnValue(eve + 90_000);
    document.dispatchEvent(new Event('visibilitychange'));
    asked().flush(session({ user: null, today: null, programme }));
    asked().flush(session({ user: null, today: null, programme, csrfToken: 'third' }));
    expect([service.state(), service.csrfToken(), service.user()?.name]).toEqual(['expired', 'third', 'Inês']);
  });

  it('knows signed out from unreachable', () => {
    asked().flush(session({ user: null, today: null }));
    expect(service.state()).toBe('out');
    service.ask();
    asked().error(new ProgressEvent('error'));
    expect(service.state()).toBe('unreachable');
  });

  it('sends its token with what writes, not with what reads', () => {
    asked().flush(session());
    const client = TestBed.inject(HttpClient);
    client.post('/api/records', {}).subscribe();
    client.get('/api/desk').subscribe();
    const write = http.expectOne('/api/records');
    expect(write.request.headers.get('x-csrf-token')).toBe('first');
    expect(http.expectOne('/api/desk').request.headers.has('x-csrf-token')).toBe(false);
  });

  it('notices an expired session, fetches a new token and keeps who it was', () => {
    asked().flush(session());
    TestBed.inject(HttpClient)
      .get('/api/desk')
      .subscribe({ error: () => undefined });
    http.expectOne('/api/desk').flush({}, { status: 401, statusText: 'signed out' });
    asked().flush(session({ user: null, csrfToken: 'second', today: null }));
    expect(service.state()).toBe('expired');
    expect(service.csrfToken()).toBe('second');
    expect(service.user()?.name).toBe('Inês');
  });

  it('tells those who wait when somebody signs in', () => {
    asked().flush(session({ user: null, today: null }));
    const names: string[] = [];
    service.signedIn$.subscribe(({ name }) => names.push(name));
    service.signIn({ signIn: 'ines', password: 'x' }).subscribe();
    http.expectOne({ method: 'POST', url: '/api/session' }).flush(session({ csrfToken: 'third' }));
    expect(names).toEqual(['Inês']);
    expect([service.state(), service.csrfToken()]).toEqual(['in', 'third']);
  });

  it('signs in with the token of the session this browser has by now, asked for once', () => {
    asked().flush(session({ user: null, today: null }));
    const faults: unknown[] = [];
    service.signIn({ signIn: 'ines', password: 'x' }).subscribe({ error: (error: unknown) => faults.push(error) });
    const stale = { body: { code: 'csrf' }, as: { status: 403, statusText: 'Forbidden' } };
    const post = () => http.expectOne({ method: 'POST', url: '/api/session' });
    post().flush(stale.body, stale.as);
    asked().flush(session({ user: null, today: null, csrfToken: 'newer' }));
    const again = post();
    expect(again.request.headers.get('x-csrf-token')).toBe('newer');
    again.flush(stale.body, stale.as);
    expect(faults).toHaveLength(1);
  });
});
