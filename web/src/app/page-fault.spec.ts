import { Location } from '@angular/common';
import { Component, inject } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router, withNavigationErrorHandler, withRouterConfig } from '@angular/router';
import { until } from '../../testing/until';
import { PageFault } from './page-fault';
import { ToastsService } from './ui/toasts.service';

@Component({ template: '' })
class Blank {}

let fails: number;
let asked: number;
let router: Router;
let toasts: ToastsService;
const path = () => TestBed.inject(Location).path();

beforeEach(async () => {
  asked = 0;
  const loadComponent = () => {
    asked += 1;
    return asked <= fails ? Promise.reject(new TypeError('Failed to fetch')) : Promise.resolve(Blank);
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter(
        [
          { path: 'desk', component: Blank },
          { path: 'walk/:id', loadComponent },
        ],
        withRouterConfig({ resolveNavigationPromiseOnError: true }),
        withNavigationErrorHandler((error) => inject(PageFault).meet(error)),
      ),
    ],
  });
  router = TestBed.inject(Router);
  toasts = TestBed.inject(ToastsService);
  router.initialNavigation();
  await router.navigateByUrl('/desk');
});

describe('a page that did not come', () => {
  it('is asked for once more, and opens where its address says', async () => {
    fails = 1;
    await router.navigateByUrl('/walk/7?tree=3');
    await until(() => path() === '/walk/7?tree=3', 'the walk');
    expect([asked, toasts.toasts()]).toEqual([2, []]);
  });
  it('is said where it does not come again, with a press that asks once more', async () => {
    fails = 3;
    await router.navigateByUrl('/walk/7');
    const toast = await until(() => toasts.toasts()[0], 'the word that it did not come');
    expect([asked, path(), toast.text]).toEqual([2, '/desk', expect.stringContaining('could not be loaded')]);
    toasts.act(toast);
    await until(() => path() === '/walk/7', 'the walk');
    expect([asked, toasts.toasts()]).toEqual([4, []]);
  });
  it('does not call back whoever is under way to another page', async () => {
    fails = 1;
    await router.navigateByUrl('/walk/7');
    await router.navigateByUrl('/desk?find=A-1');
    await new Promise((resolve) => setTimeout(resolve, 500));
    expect([asked, path()]).toEqual([1, '/desk?find=A-1']);
  });
});
