import { HttpErrorResponse } from '@angular/common/http';
import { isOfTheWay } from './of-the-way';

/**
 * No answer of the server: nothing was reached, or something on the way says that it reached nothing, the worker of this
 * page or a proxy.
 */
export const neverArrived = (error: unknown): boolean =>
  error instanceof HttpErrorResponse && (error.status === 0 || isOfTheWay(error.status, error.error));
