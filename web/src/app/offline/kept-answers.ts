import { HttpResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injector } from '@angular/core';
import { catchError, from, map, throwError } from 'rxjs';
import { neverArrived } from '../session/never-arrived';
import { AlongService } from './along.service';

/** What was taken along answers for a server that is not reached; a word of the server itself always counts. */
export const keptAnswers: HttpInterceptorFn = (request, next) => {
  const injector = inject(Injector);
  if (request.method !== 'GET' || request.responseType !== 'json') return next(request);
  return next(request).pipe(
    catchError((error: unknown) => {
      if (!neverArrived(error)) return throwError(() => error);
      return from(
        injector
          .get(AlongService)
          .answer(request.urlWithParams)
          .catch(() => null),
      ).pipe(
        map((body) => {
          if (body === null || body === undefined) throw error;
          return new HttpResponse({ body, url: request.url });
        }),
      );
    }),
  );
};
