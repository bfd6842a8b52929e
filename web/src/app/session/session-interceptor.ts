import { HttpErrorResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injector } from '@angular/core';
import { csrfHeader, deviceIdHeader, deviceTimeHeader } from '@sombra/contract';
import { catchError, throwError } from 'rxjs';
import { deviceId } from './device-id';
import { SessionService } from './session.service';

/** Adds the CSRF token to what writes, and notices a session that has run out. */
export const sessionInterceptor: HttpInterceptorFn = (request, next) => {
  // The session service itself asks over HTTP: look it up late.
  const injector = inject(Injector);
  const writes = request.method !== 'GET';
  const ofDevice = request.url.endsWith('/api/session') ? deviceId() : null;
  const sent = request.clone({
    setHeaders: {
      ...(writes && { [deviceTimeHeader]: new Date().toISOString() }),
      ...(writes && !request.headers.has(csrfHeader) && { [csrfHeader]: injector.get(SessionService).csrfToken() }),
      ...(ofDevice !== null && { [deviceIdHeader]: ofDevice }),
    },
  });
  return next(sent).pipe(
    catchError((error: unknown) => {
      const signedOut = error instanceof HttpErrorResponse && error.status === 401;
      if (signedOut && !request.url.endsWith('/api/session')) injector.get(SessionService).expire();
      return throwError(() => error);
    }),
  );
};
