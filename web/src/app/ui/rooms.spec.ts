import { routes } from '../app.routes';
import { TestBed } from '@angular/core/testing';
import { rooms } from '../rooms';
import { RoomMap, ROOMS } from './rooms';

let map: RoomMap;
beforeEach(() => {
  TestBed.configureTestingModule({ providers: [{ provide: ROOMS, useValue: rooms }] });
  map = TestBed.inject(RoomMap);
});

describe('a stage whose work is on the whole town', () => {
  it('stands in work order, and has no bench a spot could be opened at', () => {
    const paths = map.stages.map(({ path }) => path);
    expect(paths.indexOf('water')).toBe(paths.indexOf('inspect') - 1);
    expect(map.spotStages.map(({ path }) => path)).toEqual(paths.filter((path) => path !== 'water'));
    expect(map.ofStage('water')).toBeUndefined();
  });
});

describe('pages of a stage', () => {
  it.each([
    ['/ground/0190a5c2-0000-7000-8000-000000000001?part=around', 'Ground'],
    ['/tickets?on=2026-06-01', 'Ground'],
    ['/lists/0190a5c2-0000-7000-8000-000000000001', 'Match'],
    ['/rounds/0190a5c2-0000-7000-8000-000000000001', 'Water'],
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

  it('load the benches of all stages ahead, and bear that one does not come', async () => {
    const asked: string[] = [];
    const room = (stage: 'ground' | 'pit', comes: boolean) => ({
      stage,
      empty: '',
      pages: [],
      bench: () => {
        asked.push(stage);
        return comes ? Promise.resolve(class {}) : Promise.reject(new Error('no network'));
      },
    });
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [{ provide: ROOMS, useValue: [room('ground', false), room('pit', true)] }],
    });
    TestBed.inject(RoomMap).preload();
    await new Promise((resolve) => setTimeout(resolve));
    expect(asked).toEqual(['ground', 'pit']);
  });
});
