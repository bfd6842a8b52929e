import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { readPosition } from './position';

let server: Server;
let answer: { status: number; body: string };
let url: string;

beforeAll(async () => {
  server = createServer((_request, response) => {
    response.writeHead(answer.status, { 'content-type': 'application/json' }).end(answer.body);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => new Promise((resolve) => server.close(resolve)));

describe('the position service', () => {
  it('tells where the crew stands, and that it is simulated', async () => {
    answer = { status: 200, body: '{"position":[-25.4,36.9],"accuracyM":4.2}' };
    expect(await readPosition({ url, simulated: true })).toEqual({
      position: [-25.4, 36.9],
      accuracyM: 4.2,
      simulated: true,
    });
  });

  it.each([
    ['no JSON', 200, 'hello'],
    ['a place that is none', 200, '{"position":[-25.4,136.9],"accuracyM":4}'],
    ['a negative error', 200, '{"position":[-25.4,36.9],"accuracyM":-4}'],
    ['an error page', 500, '<html>'],
  ])('is as good as absent when it answers %s', async (_name, status, body) => {
    answer = { status, body };
    await expect(readPosition({ url, simulated: false })).rejects.toThrow('the position service does not answer');
  });

  it('is said to be absent where none is set up or nobody listens', async () => {
    await expect(readPosition(null)).rejects.toThrow('no position service');
    await expect(readPosition({ url: 'http://127.0.0.1:9', simulated: false })).rejects.toThrow('does not answer');
  });
});
