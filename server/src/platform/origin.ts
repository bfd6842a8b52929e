import type { Request } from 'express';

/** Where this request reached us, as codes and links on paper name it. */
export const originOf = (request: Request): string => `${request.protocol}://${request.get('host') ?? ''}`;
