import { isDevMode } from '@angular/core';
import type { Routes } from '@angular/router';

/** Every component in every state, for those who work on Sombra: only in a development build. */
export const galleryRoutes: Routes = isDevMode()
  ? [
      {
        path: 'gallery',
        title: 'Gallery · Sombra',
        loadComponent: () => import('./gallery-page').then((m) => m.GalleryPage),
      },
    ]
  : [];
