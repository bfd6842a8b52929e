import { HttpEventType, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { ImportProgress } from '@sombra/contract';
import { ImportService } from './import.service';

let service: ImportService;
let http: HttpTestingController;
const file = new File(['ref,place,lng,lat'], 'spots.csv');

beforeEach(() => {
  TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
  service = TestBed.inject(ImportService);
  http = TestBed.inject(HttpTestingController);
});

const line = (progress: ImportProgress) => `${JSON.stringify(progress)}\n`;
const call = () => http.expectOne((request) => request.url === '/api/imports');

describe('running an import', () => {
  it('tells each sign of progress as its line arrives whole, then the end', () => {
    const told: ImportProgress[] = [];
    service.run(file, 'id').subscribe((progress) => told.push(progress));
    const request = call();
    const first = line({ kind: 'progress', done: 250, of: 500 });
    const arrive = (partialText: string) =>
      request.event({ type: HttpEventType.DownloadProgress, loaded: partialText.length, partialText } as never);
    arrive(first.slice(0, 10));
    expect(told).toEqual([]);
    arrive(first);
    arrive(`${first}{"kind":"prog`);
    const all =
      first + line({ kind: 'progress', done: 500, of: 500 }) + line({ kind: 'done', written: 500, same: 0, bad: 0 });
    request.flush(all);
    expect(told).toEqual([
      { kind: 'progress', done: 250, of: 500 },
      { kind: 'done', written: 500, same: 0, bad: 0 },
    ]);
  });

  it('hangs up when nobody listens any more', () => {
    const subscription = service.run(file, 'id').subscribe();
    const request = call();
    subscription.unsubscribe();
    expect(request.cancelled).toBe(true);
  });

  it('sends the file as it is, with its name and the id of the act', () => {
    service.run(file, 'the-id').subscribe();
    const { request } = call();
    expect(request.body).toBe(file);
    expect(request.params.get('fileName')).toBe('spots.csv');
    expect(request.params.get('id')).toBe('the-id');
    expect(request.headers.get('content-type')).toBe('text/csv');
  });
});
