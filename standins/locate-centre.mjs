// Simulated one-call locate centre. Five utilities answer each ticket after a while; one of them never does until it
// is reminded, and one is in conflict where the dig area reaches the quay. Run it alone:
// node standins/locate-centre.mjs [PORT]. It forgets everything when it stops; numbers are made from the request's id,
// so that asking again after that gives the same ticket.
//   POST /tickets {requestId, purpose, area, workFrom, workUntil, renews}  -> the ticket
//   GET  /tickets/NUMBER                                                  -> the ticket with the replies so far
//   POST /tickets/NUMBER/remind {utility}     POST /tickets/NUMBER/withdraw
import { createServer } from 'node:http';
import { createHash } from 'node:crypto';

const utilities = [
  { name: 'Talhamar Water', afterMs: 1500, tell: 'marked', toleranceMm: 600, note: 'Main 110 mm along the kerb' },
  {
    name: 'Island Grid',
    afterMs: 2500,
    tell: 'marked',
    toleranceMm: 750,
    note: 'Low-voltage cable, about 700 mm deep',
  },
  { name: 'Nordal Gas', afterMs: null, tell: 'clear', toleranceMm: null, note: 'No gas in the area' },
  { name: 'Atlantic Telecom', afterMs: 3500, tell: 'clear', toleranceMm: null, note: 'No ducts in the area' },
  { name: 'Town Drains', afterMs: 4500, tell: 'clear', toleranceMm: null, note: 'Drain deeper than 2 m' },
];
/** South of this the quay's feeder cable lies: the grid objects. */
const quayLat = 36.8958;

const today = () => new Date().toISOString().slice(0, 10);

function cornersOf(area) {
  return area.coordinates.flatMap((polygon) => polygon[0] ?? []);
}

/** A line through the middle of each piece of the area, along its longer side. */
function marksIn(area, shift) {
  const lines = area.coordinates.map(([ring]) => {
    const [west, east] = [Math.min(...ring.map(([x]) => x)), Math.max(...ring.map(([x]) => x))];
    const [south, north] = [Math.min(...ring.map(([, y]) => y)), Math.max(...ring.map(([, y]) => y))];
    const x = west + (east - west) * shift;
    const y = south + (north - south) * shift;
    return east - west > north - south
      ? [
          [west, y],
          [east, y],
        ]
      : [
          [x, south],
          [x, north],
        ];
  });
  return { type: 'MultiLineString', coordinates: lines };
}

export function startLocateCentre(port = 0, { silent = 'Nordal Gas', hurry = 1 } = {}) {
  const tickets = new Map();

  const replyOf = (ticket, { name, afterMs, tell, toleranceMm, note }, i) => {
    const after = name === silent ? null : (afterMs ?? 2000);
    const reminded = ticket.reminded.get(name);
    const due =
      reminded !== undefined ? reminded + 1000 * hurry : after === null ? Infinity : ticket.at + after * hurry;
    if (Date.now() < due)
      return { utility: name, state: 'waiting', repliedOn: null, toleranceMm: null, note: '', marks: null };
    const byTheQuay = name === 'Island Grid' && cornersOf(ticket.area).some(([, lat]) => lat < quayLat);
    if (byTheQuay && reminded === undefined) {
      return {
        utility: name,
        state: 'conflict',
        repliedOn: today(),
        toleranceMm: null,
        note: 'Feeder cable under the quay: call before anything is dug',
        marks: marksIn(ticket.area, 0.5),
      };
    }
    const marks = tell === 'marked' ? marksIn(ticket.area, i === 0 ? 0.25 : 0.75) : null;
    return { utility: name, state: tell, repliedOn: today(), toleranceMm, note, marks };
  };
  const answer = (ticket) => ({
    number: ticket.number,
    validFrom: ticket.validFrom,
    validUntil: ticket.validUntil,
    replies: utilities.map((utility, i) => replyOf(ticket, utility, i)),
  });

  function raise(body) {
    const { requestId, area, workFrom, workUntil } = body;
    if (typeof requestId !== 'string' || area?.type !== 'MultiPolygon')
      return [400, { problem: 'requestId and area are needed' }];
    if (workFrom < today()) return [422, { problem: 'the first day of work has passed' }];
    const mark = createHash('sha256').update(requestId).digest('hex').slice(0, 6).toUpperCase();
    const number = `LC-${mark}`;
    if (!tickets.has(number)) {
      tickets.set(number, {
        number,
        area,
        validFrom: workFrom,
        validUntil: workUntil,
        at: Date.now(),
        reminded: new Map(),
      });
    }
    return [201, answer(tickets.get(number))];
  }

  function handle(method, path, body) {
    if (method === 'POST' && path === '/tickets') return raise(body);
    const [, number, act] = /^\/tickets\/([^/]+)(?:\/(remind|withdraw))?$/.exec(path) ?? [];
    const ticket = tickets.get(decodeURIComponent(number ?? ''));
    if (!ticket) return [404, { problem: 'no such ticket' }];
    if (method === 'GET' && !act) return [200, answer(ticket)];
    if (method === 'POST' && act === 'remind') ticket.reminded.set(String(body.utility), Date.now());
    if (method === 'POST' && act === 'withdraw') tickets.delete(ticket.number);
    return [200, {}];
  }

  const server = createServer((request, response) => {
    const parts = [];
    request.on('data', (part) => parts.push(part));
    request.on('end', () => {
      let body = {};
      try {
        body = parts.length > 0 ? JSON.parse(Buffer.concat(parts).toString()) : {};
      } catch {
        // Not JSON: an empty body is refused below.
      }
      const [status, answered] = handle(request.method, request.url, body);
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(answered));
    });
  });
  return new Promise((resolve) => {
    server.listen(port, '127.0.0.1', () => {
      const stop = () => {
        server.close();
        server.closeAllConnections();
      };
      resolve({ url: `http://127.0.0.1:${server.address().port}`, port: server.address().port, stop });
    });
  });
}

if (process.argv[1]?.endsWith('locate-centre.mjs')) {
  const { url } = await startLocateCentre(Number(process.argv[2] ?? 0));
  console.log(`Simulated locate centre at ${url}`);
}
