import { HttpErrorResponse } from '@angular/common/http';

const ofGateways = [502, 503, 504];
/** What the server itself says of a failure carries its code. */
const isOurs = (body: unknown): boolean => typeof body === 'object' && body !== null && 'code' in body;

/**
 * No answer of the server: nothing was reached, or something on the way says that it reached nothing, the worker of this
 * page or a proxy.
 */
export const neverArrived = (error: unknown): boolean =>
  error instanceof HttpErrorResponse &&
  (error.status === 0 || (ofGateways.includes(error.status) && !isOurs(error.error)));
