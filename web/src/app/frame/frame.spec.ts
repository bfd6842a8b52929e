import { HttpErrorResponse } from '@angular/common/http';
import { passes, readProblem, sayProblem } from '../ui/problem';
import { sayDate, sayDay, sayLateness } from '../ui/say-date';

const answered = (status: number, error: unknown) => new HttpErrorResponse({ status, error });
const problem = { type: 'x', title: 'Not so', status: 409, code: 'conflict' };

describe('problems', () => {
  it('are read from a body of JSON or text', () => {
    expect(readProblem(answered(409, problem))).toEqual(problem);
    expect(readProblem(answered(409, JSON.stringify(problem)))).toEqual(problem);
  });

  it('have words of our own where the answer has none', () => {
    expect(readProblem(answered(0, new ProgressEvent('error'))).code).toBe('offline');
    expect(readProblem(answered(500, '<html>')).title).toBe('The server answered with an error (500).');
    // A proxy that reached no server.
    expect(readProblem(answered(502, '<html>')).code).toBe('offline');
    expect(readProblem(new Error('boom')).title).not.toContain('boom');
  });

  it('pass by themselves or not', () => {
    const of = (status: number, code = 'x') => passes({ ...problem, status, code });
    expect([0, 401, 429, 500, 503].map((status) => of(status))).toEqual([true, true, true, true, true]);
    expect([400, 403, 404, 409].map((status) => of(status))).toEqual([false, false, false, false]);
    expect(of(403, 'csrf')).toBe(true);
  });

  it('are said with the reference to quote', () => {
    expect(sayProblem({ ...problem, reference: 'abc' })).toBe('Not so. Quote reference abc.');
  });
});

describe('dates', () => {
  it('read the same in every language of the browser', () => {
    expect(sayDate('2026-11-23')).toBe('Mon 23 Nov 2026');
    expect(sayDay('2026-03-01')).toBe('1 Mar 2026');
    expect(sayDate('')).toBe('');
  });

  it.each([
    [0, 'today'],
    [1, '1 day late'],
    [14, '14 days late'],
    [-3, 'in 3 days'],
  ])('%d days late reads %s', (days, words) => {
    expect(sayLateness(days)).toBe(words);
  });
});
