import { deviceTimeHeader, instant } from '@sombra/contract';
import type { Request } from 'express';
import { z } from 'zod';
import { parse } from './problems';

/** @throws ZodError where the header is no instant */
export const deviceNow = (request: Request): string | null =>
  parse(z.object({ deviceTime: instant.nullable() }), { deviceTime: request.get(deviceTimeHeader) ?? null }).deviceTime;
