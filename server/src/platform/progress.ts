import type { Request, Response } from 'express';
import { problemOf } from './problems';

export interface Failed {
  readonly kind: 'failed';
  readonly title: string;
  readonly reference?: string | undefined;
}

/**
 * Answers line by line, in JSON, as an act goes on; a client that hangs up cancels it. What is refused before the
 * first line is answered as any other problem is.
 */
export async function streamProgress<T extends { readonly kind: string }>(
  request: Request,
  response: Response,
  act: (run: { signal: AbortSignal; onProgress: (progress: T) => void }) => Promise<void>,
): Promise<void> {
  const abort = new AbortController();
  response.on('close', () => abort.abort());
  const say = (progress: T | Failed) => {
    if (!response.headersSent) response.type('application/x-ndjson').setHeader('x-accel-buffering', 'no');
    response.write(`${JSON.stringify(progress)}\n`);
    response.flush?.();
  };
  try {
    await act({ signal: abort.signal, onProgress: say });
  } catch (error) {
    if (!response.headersSent) throw error;
    const { problem, ours } = problemOf(error, String(request.id));
    if (ours) request.log.error({ err: error }, 'a streamed act failed');
    say({ kind: 'failed', title: problem.title, reference: problem.reference });
  }
  response.end();
}
