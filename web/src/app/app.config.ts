import { provideHttpClient, withFetch, withInterceptors } from '@angular/common/http';
import { inject, isDevMode, provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import {
  provideRouter,
  withComponentInputBinding,
  withNavigationErrorHandler,
  withPreloading,
  withRouterConfig,
} from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { routes } from './app.routes';
import { LaidReady } from './laid-ready';
import { PageFault } from './page-fault';
import { rooms } from './rooms';
import { keptAnswers } from './offline/kept-answers';
import { isOpenPage } from './session/open-pages';
import { sessionInterceptor } from './session/session-interceptor';
import { ROOMS } from './ui/rooms';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch(), withInterceptors([keptAnswers, sessionInterceptor])),
    provideRouter(
      routes,
      withComponentInputBinding(),
      withPreloading(LaidReady),
      withRouterConfig({ resolveNavigationPromiseOnError: true }),
      // A page that was never open comes over the network; without one its address cannot be followed.
      withNavigationErrorHandler((error) => inject(PageFault).meet(error)),
    ),
    // Lays in the whole application on this device, so that it opens where there is no network.
    provideServiceWorker('ngsw-worker.js', {
      enabled: !isDevMode() && !isOpenPage(),
      registrationStrategy: 'registerWhenStable:10000',
    }),
    { provide: ROOMS, useValue: rooms },
  ],
};
