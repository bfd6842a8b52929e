import { routes } from '../app.routes';
import { TestBed } from '@angular/core/testing';
import { rooms } from '../rooms';
import { RoomMap, ROOMS } from './rooms';

let map: RoomMap;
beforeEach(() => {
  TestBed.configureTestingModule({ providers: [{ provide: ROOMS, useValue: rooms }] });
  map = TestBed.inject(RoomMap);
});

describe('pages of a stage', () => {
  it.each([
    ['/ground/0190a5c2-0000-7000-8000-000000000001?part=around', 'Ground'],
    ['/tickets?on=2026-06-01', 'Ground'],
    ['/lists/0190a5c2-0000-7000-8000-000000000001', 'Match'],
    ['/people', 'Programme'],
    ['/desk', undefined],
    ['/me', undefined],
    ['/', undefined],
  ])('%s stands in the row of %s', (url, name) => {
    const room = map.roomOf(url);
    expect(room && map.nameOf(room)).toBe(name);
  });

  it('each have a route and a key of their own', () => {
    const paths = routes.map(({ path }) => `/${path}`);
    expect(map.pages.filter(({ path }) => !paths.includes(path))).toEqual([]);
    // `g d` and `g t` lead to the desk and the town.
    const keys = ['d', 't', ...map.pages.map(({ key }) => key)];
    expect(new Set(keys).size).toBe(keys.length);
  });

  it.each([
    ['tick', ['Locate tickets']],
    ['LISTS', ["Season's lists"]],
    ['order', ["Season's lists"]],
    ['pass', ['People']],
    ['m', []],
    ['aterials', []],
  ])('are found by %s', (typed, names) => {
    expect(map.pagesLike(typed).map(({ name }) => name)).toEqual(names);
  });
});
