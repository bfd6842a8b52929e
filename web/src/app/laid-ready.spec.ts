import { Location } from '@angular/common';
import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router, RouterPreloader, withPreloading } from '@angular/router';
import { until } from '../../testing/until';
import { LaidReady } from './laid-ready';

@Component({ template: '' })
class Blank {}

describe('a page laid ready', () => {
  it('is fetched while the page it follows is looked at, once, and not elsewhere; one that does not come disturbs nobody', async () => {
    const fetched: string[] = [];
    const load = (name: string, fails: boolean) => () => {
      fetched.push(name);
      return fails ? Promise.reject(new Error('no network')) : Promise.resolve(Blank);
    };
    TestBed.configureTestingModule({
      providers: [
        provideRouter(
          [
            { path: 'desk', component: Blank },
            { path: 'along', component: Blank },
            { path: 'gone', loadComponent: load('gone', true), data: { follows: '/along' } },
            { path: 'walk', loadComponent: load('walk', false), data: { follows: '/along' } },
            { path: 'other', loadComponent: load('other', false) },
          ],
          withPreloading(LaidReady),
        ),
      ],
    });
    TestBed.inject(RouterPreloader).setUpPreloading();
    const router = TestBed.inject(Router);
    const rest = () => new Promise((resolve) => setTimeout(resolve, 300));
    router.initialNavigation();
    await router.navigateByUrl('/desk');
    await rest();
    expect(fetched).toEqual([]);
    await router.navigateByUrl('/along?map=yes');
    await until(() => fetched.includes('walk'), 'the walk');
    await router.navigateByUrl('/desk');
    await router.navigateByUrl('/along');
    await rest();
    expect(fetched.filter((name) => name === 'walk')).toEqual(['walk']);
    expect(fetched).not.toContain('other');
    expect(TestBed.inject(Location).path()).toBe('/along');
  });
});
