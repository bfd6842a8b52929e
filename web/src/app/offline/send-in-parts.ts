import { HttpErrorResponse } from '@angular/common/http';
import { csrfHeader, deviceTimeHeader } from '@sombra/contract';
import { DetailedError, Upload } from 'tus-js-client';

interface Part {
  readonly id: string;
  /** The door the whole picture is for. */
  readonly url: string;
  readonly picture: Blob;
  readonly resumeAt: string | undefined;
  readonly csrfToken: string;
  /** Told where the rest goes, as soon as the server has taken the first of it. */
  readonly begun: (at: string) => Promise<unknown>;
}

/** A part is this large: of a cut one the whole is sent again. */
const partBytes = 256 * 1024;

/**
 * Sends a picture in parts, from where an earlier try was cut.
 * @throws HttpErrorResponse as a call in one piece would
 */
export function sendInParts({ id, url, picture, resumeAt, csrfToken, begun }: Part): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const upload = new Upload(picture, {
      endpoint: '/api/uploads',
      uploadUrl: resumeAt ?? null,
      metadata: { id, url, type: picture.type || 'image/jpeg' },
      headers: { [csrfHeader]: csrfToken, [deviceTimeHeader]: new Date().toISOString() },
      chunkSize: partBytes,
      // The queue tries again, and keeps where it was cut.
      retryDelays: null,
      storeFingerprintForResuming: false,
      onUploadUrlAvailable: () => void begun(upload.url ?? ''),
      onSuccess: () => resolve({ id }),
      onError: (error) => reject(asHttpError(error, url)),
    });
    upload.start();
  });
}

/**
 * Told by the door of parts itself, in plain words: another part of the same picture is still being written, of a line that
 * was cut. Nothing was refused; it is tried again from where the server then is.
 */
const stillWritten = (status: number, body: string): boolean =>
  (status === 409 || status === 423) && !body.trimStart().startsWith('{');

/** What went wrong, as every other call of the application says it. */
export function asHttpError(error: Error, url: string): HttpErrorResponse {
  const answer = error instanceof DetailedError ? error.originalResponse : null;
  const cut = !answer || stillWritten(answer.getStatus(), answer.getBody());
  if (cut) return new HttpErrorResponse({ error: new ProgressEvent('error'), status: 0, url });
  return new HttpErrorResponse({ error: answer.getBody(), status: answer.getStatus(), url });
}
