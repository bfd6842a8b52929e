import type { Routes, UrlMatcher } from '@angular/router';
import { stageNames } from '@sombra/core';
import { openStages, type OpenStage } from './frame/open-stages';

const bench = () => import('./spot/stage-page').then((m) => m.StagePage);

/** `/pit` and `/pit/ID` are one route, so that the list keeps its place and its words when a spot is chosen. */
function stageMatcher(stage: OpenStage): UrlMatcher {
  return (segments) => {
    const [first, second] = segments;
    if (first?.path !== stage || segments.length > 2) return null;
    return second ? { consumed: segments, posParams: { spotId: second } } : { consumed: segments };
  };
}

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'desk' },
  { path: 'desk', title: 'Desk · Sombra', loadComponent: () => import('./desk/desk-page').then((m) => m.DeskPage) },
  ...openStages.map((stage) => ({
    matcher: stageMatcher(stage),
    data: { stage },
    title: `${stageNames[stage]} · Sombra`,
    loadComponent: bench,
  })),
  {
    path: 'tree/:treeId',
    title: 'Tree · Sombra',
    loadComponent: () => import('./spot/tree-page').then((m) => m.TreePage),
  },
  {
    path: 'import',
    title: 'Import · Sombra',
    loadComponent: () => import('./files/import-page').then((m) => m.ImportPage),
  },
  { path: '**', redirectTo: 'desk' },
];
