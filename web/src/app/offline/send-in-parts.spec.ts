import { DetailedError, type HttpResponse } from 'tus-js-client';
import { asHttpError } from './send-in-parts';

const answered = (status: number, body: string): Error => {
  const error = Object.assign(Object.create(DetailedError.prototype) as DetailedError, {
    originalResponse: {
      getStatus: () => status,
      getBody: () => body,
      getHeader: () => undefined,
      getUnderlyingObject: () => null,
    } as HttpResponse,
  });
  return error;
};
const url = '/api/spots/1/photos/2';
const taken = JSON.stringify({ title: 'Another file was stored under this id already', code: 'conflict', status: 409 });

describe('a picture in parts', () => {
  it.each([
    ['no answer at all', new Error('cut'), 0],
    ['a part that is still being written', answered(409, 'Upload-Offset header conflicts with the current offset'), 0],
    ['a part that is locked', answered(423, ''), 0],
    ['an id that another file has', answered(409, taken), 409],
    ['a session that is over', answered(401, '{"code":"signed_out"}'), 401],
    ['a server at its end', answered(503, ''), 503],
  ])('%s', (_what, error, status) => {
    expect(asHttpError(error, url)).toMatchObject({ status, url });
  });
});
