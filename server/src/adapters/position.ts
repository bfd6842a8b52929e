import { NotFoundError } from '@sombra/core';
import { z } from 'zod';

const answerSchema = z.object({
  position: z.tuple([z.number().min(-180).max(180), z.number().min(-85).max(85)]),
  accuracyM: z.number().min(0).max(100_000),
});

export interface PositionFix extends z.infer<typeof answerSchema> {
  readonly simulated: boolean;
}

/**
 * Asks the programme's position service where the crew's receiver stands. A real one answers the same GET
 * /position; without one, devices tell their own position.
 * @throws NotFoundError where no service is set up, or it does not answer sensibly within two seconds
 */
export async function readPosition(service: { url: string; simulated: boolean } | null): Promise<PositionFix> {
  if (!service) throw new NotFoundError('no position service', 'path');
  try {
    const response = await fetch(`${service.url}/position`, { signal: AbortSignal.timeout(2000) });
    return { ...answerSchema.parse(await response.json()), simulated: service.simulated };
  } catch {
    throw new NotFoundError('the position service does not answer', 'path');
  }
}
