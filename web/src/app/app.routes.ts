import type { Route, Routes, UrlMatcher } from '@angular/router';
import { stageNames, type Stage } from '@sombra/core';
import { galleryRoutes } from './gallery/gallery.routes';
import { rooms } from './rooms';
import { isSpotRoom, type Page, type Room } from './ui/rooms';

const field = () => import('./field/field-page').then((m) => m.FieldPage);

/** `/pit` and `/pit/ID` are one route, so that the list keeps its place and its words when a spot is chosen. */
function fieldMatcher(page: Stage | 'town'): UrlMatcher {
  return (segments) => {
    const [first, second] = segments;
    if (first?.path !== page || segments.length > 2) return null;
    return second ? { consumed: segments, posParams: { spotId: second } } : { consumed: segments };
  };
}

const fieldOf = (stage: Stage): Route => ({
  matcher: fieldMatcher(stage),
  data: { stage },
  title: `${stageNames[stage]} · Sombra`,
  loadComponent: field,
});

function stageOf(room: Room): Routes {
  if (isSpotRoom(room)) return [fieldOf(room.stage)];
  if (room.stage === null) return [];
  return [{ path: room.stage, title: `${stageNames[room.stage]} · Sombra`, loadComponent: room.home.load }];
}

function routesOf({ path: address, name, load, timeless, behind = [] }: Page): Routes {
  const path = address.slice(1);
  return [
    { path, title: `${name} · Sombra`, loadComponent: load, data: { timeless } },
    ...behind.map((one) => ({ ...one, path: `${path}/${one.path}` })),
  ];
}

export const routes: Routes = [
  { path: '', pathMatch: 'full', loadComponent: () => import('./people/landing').then((m) => m.Landing) },
  { path: 'desk', title: 'Desk · Sombra', loadComponent: () => import('./desk/desk-page').then((m) => m.DeskPage) },
  { matcher: fieldMatcher('town'), title: 'Town · Sombra', loadComponent: field },
  ...rooms.flatMap((room) => [...stageOf(room), ...room.pages.flatMap(routesOf)]),
  {
    path: 'tree/:treeId',
    title: 'Tree · Sombra',
    loadComponent: () => import('./tree/tree-page').then((m) => m.TreePage),
  },
  {
    path: 'import',
    data: { timeless: true },
    title: 'Import · Sombra',
    loadComponent: () => import('./files/import-page').then((m) => m.ImportPage),
  },
  {
    path: 'along',
    data: { timeless: true },
    title: 'Taken along · Sombra',
    loadComponent: () => import('./along/along-page').then((m) => m.AlongPage),
  },
  {
    path: 'waiting',
    data: { timeless: true },
    title: 'Waiting · Sombra',
    loadComponent: () => import('./waiting/waiting-page').then((m) => m.WaitingPage),
  },
  {
    path: 'walk/:assignmentId',
    data: { timeless: true, follows: '/along' },
    title: 'Walk · Sombra',
    loadComponent: () => import('./walk/walk-page').then((m) => m.WalkPage),
  },
  {
    path: 'me',
    data: { timeless: true },
    title: 'You · Sombra',
    loadComponent: () => import('./people/own-page').then((m) => m.OwnPage),
  },
  {
    path: 'welcome/:token',
    title: 'Welcome · Sombra',
    loadComponent: () => import('./people/welcome-page').then((m) => m.WelcomePage),
  },
  {
    path: 'join/:token',
    title: 'Plant with us · Sombra',
    loadComponent: () => import('./day/join-page').then((m) => m.JoinPage),
  },
  {
    path: 'planted/:token',
    title: 'Your tree · Sombra',
    loadComponent: () => import('./day/planted-page').then((m) => m.PlantedPage),
  },
  {
    path: 'told/:token',
    title: 'Tell of a tree · Sombra',
    loadComponent: () => import('./told/told-page').then((m) => m.ToldPage),
  },
  {
    path: 'care/:token',
    title: 'The tree you keep · Sombra',
    loadComponent: () => import('./care/care-page').then((m) => m.CarePage),
  },
  {
    path: 'place/:token',
    title: 'Your place · Sombra',
    loadComponent: () => import('./day/place-page').then((m) => m.PlacePage),
  },
  {
    path: 'consent/:token',
    title: 'Consent · Sombra',
    loadComponent: () => import('./ground/consent-page').then((m) => m.ConsentPage),
  },
  ...galleryRoutes,
  { path: '**', redirectTo: 'desk' },
];
