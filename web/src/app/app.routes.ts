import type { Routes, UrlMatcher } from '@angular/router';
import { stageNames } from '@sombra/core';
import { galleryRoutes } from './gallery/gallery.routes';
import { openStages, type OpenStage } from './ui/open-stages';

const field = () => import('./field/field-page').then((m) => m.FieldPage);

/** `/pit` and `/pit/ID` are one route, so that the list keeps its place and its words when a spot is chosen. */
function fieldMatcher(page: OpenStage | 'town'): UrlMatcher {
  return (segments) => {
    const [first, second] = segments;
    if (first?.path !== page || segments.length > 2) return null;
    return second ? { consumed: segments, posParams: { spotId: second } } : { consumed: segments };
  };
}

export const routes: Routes = [
  { path: '', pathMatch: 'full', loadComponent: () => import('./people/landing').then((m) => m.Landing) },
  { path: 'desk', title: 'Desk · Sombra', loadComponent: () => import('./desk/desk-page').then((m) => m.DeskPage) },
  { matcher: fieldMatcher('town'), title: 'Town · Sombra', loadComponent: field },
  ...openStages.map((stage) => ({
    matcher: fieldMatcher(stage),
    data: { stage },
    title: `${stageNames[stage]} · Sombra`,
    loadComponent: field,
  })),
  {
    path: 'tree/:treeId',
    title: 'Tree · Sombra',
    loadComponent: () => import('./tree/tree-page').then((m) => m.TreePage),
  },
  {
    path: 'import',
    title: 'Import · Sombra',
    loadComponent: () => import('./files/import-page').then((m) => m.ImportPage),
  },
  {
    path: 'tickets',
    title: 'Locate tickets · Sombra',
    loadComponent: () => import('./tickets/tickets-page').then((m) => m.TicketsPage),
  },
  {
    path: 'lists',
    title: "Season's lists · Sombra",
    loadComponent: () => import('./match/lists-page').then((m) => m.ListsPage),
  },
  {
    path: 'lists/:listId',
    title: "Season's list · Sombra",
    loadComponent: () => import('./match/list-page').then((m) => m.ListPage),
  },
  {
    path: 'species',
    title: 'Species library · Sombra',
    loadComponent: () => import('./match/species-page').then((m) => m.SpeciesPage),
  },
  {
    path: 'nurseries',
    title: 'Nurseries · Sombra',
    loadComponent: () => import('./match/nurseries-page').then((m) => m.NurseriesPage),
  },
  {
    path: 'deliveries',
    title: 'Deliveries · Sombra',
    loadComponent: () => import('./stock/deliveries-page').then((m) => m.DeliveriesPage),
  },
  {
    path: 'deliveries/:deliveryId',
    title: 'Delivery · Sombra',
    loadComponent: () => import('./stock/delivery-page').then((m) => m.DeliveryPage),
  },
  {
    path: 'deliveries/:deliveryId/lots/:lotId/tree',
    title: 'A tree as received · Sombra',
    loadComponent: () => import('./stock/receive-tree-page').then((m) => m.ReceiveTreePage),
  },
  {
    path: 'practices',
    title: 'Practices · Sombra',
    loadComponent: () => import('./practice/practices-page').then((m) => m.PracticesPage),
  },
  {
    path: 'materials',
    title: 'Materials · Sombra',
    loadComponent: () => import('./pit/materials-page').then((m) => m.MaterialsPage),
  },
  {
    path: 'rules',
    title: 'Rules · Sombra',
    loadComponent: () => import('./rules/rules-page').then((m) => m.RulesPage),
  },
  {
    path: 'programme',
    title: 'Programme · Sombra',
    loadComponent: () => import('./programme/programme-page').then((m) => m.ProgrammePage),
  },
  {
    path: 'people',
    title: 'People · Sombra',
    loadComponent: () => import('./people/people-page').then((m) => m.PeoplePage),
  },
  {
    path: 'me',
    title: 'You · Sombra',
    loadComponent: () => import('./people/own-page').then((m) => m.OwnPage),
  },
  {
    path: 'welcome/:token',
    title: 'Welcome · Sombra',
    loadComponent: () => import('./people/welcome-page').then((m) => m.WelcomePage),
  },
  {
    path: 'consent/:token',
    title: 'Consent · Sombra',
    loadComponent: () => import('./ground/consent-page').then((m) => m.ConsentPage),
  },
  {
    path: 'base-map',
    title: 'Base map · Sombra',
    loadComponent: () => import('./map/base-map-page').then((m) => m.BaseMapPage),
  },
  ...galleryRoutes,
  { path: '**', redirectTo: 'desk' },
];
