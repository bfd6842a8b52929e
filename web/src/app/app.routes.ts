import type { Routes } from '@angular/router';
import { openStages } from './frame/open-stages';

const bench = () => import('./spot/stage-page').then((m) => m.StagePage);

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'desk' },
  { path: 'desk', title: 'Desk · Sombra', loadComponent: () => import('./desk/desk-page').then((m) => m.DeskPage) },
  ...openStages.flatMap((stage) => [
    { path: stage, data: { stage }, title: `${stage} · Sombra`, loadComponent: bench },
    { path: `${stage}/:spotId`, data: { stage }, title: `${stage} · Sombra`, loadComponent: bench },
  ]),
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
