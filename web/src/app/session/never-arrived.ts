import { HttpErrorResponse } from '@angular/common/http';

/** No answer of the server: nothing was reached, or the worker that stands in for the network says so. */
export const neverArrived = (error: unknown): boolean =>
  error instanceof HttpErrorResponse && (error.status === 0 || (error.status === 504 && !error.error));
