import { provideHttpClient, withFetch, withInterceptors } from '@angular/common/http';
import { provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { routes } from './app.routes';
import { rooms } from './rooms';
import { sessionInterceptor } from './session/session-interceptor';
import { ROOMS } from './ui/rooms';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch(), withInterceptors([sessionInterceptor])),
    provideRouter(routes, withComponentInputBinding()),
    { provide: ROOMS, useValue: rooms },
  ],
};
