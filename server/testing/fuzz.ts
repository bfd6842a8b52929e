import * as contract from '@sombra/contract';
import fc from 'fast-check';
import { z } from 'zod';
import { doors } from './doors';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

interface JsonSchema {
  readonly type?: string | readonly string[];
  readonly enum?: readonly Json[];
  readonly const?: Json;
  readonly anyOf?: readonly JsonSchema[];
  readonly oneOf?: readonly JsonSchema[];
  readonly allOf?: readonly JsonSchema[];
  readonly properties?: Readonly<Record<string, JsonSchema>>;
  readonly required?: readonly string[];
  readonly additionalProperties?: JsonSchema | boolean;
  readonly propertyNames?: JsonSchema;
  readonly items?: JsonSchema;
  readonly prefixItems?: readonly JsonSchema[];
  readonly minItems?: number;
  readonly maxItems?: number;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly format?: string;
  readonly $ref?: string;
}

/** What is asked in the body, or in the query, of each door that takes anything; `file` where bytes are sent. */
const asked: Readonly<Record<string, { readonly body?: z.ZodType | 'file'; readonly query?: z.ZodType }>> = {
  'POST /api/session': { body: contract.signInSchema },
  'PUT /api/session/preferences': { body: contract.preferencesSchema },
  'PUT /api/session/password': { body: contract.changePasswordSchema },
  'POST /api/open/consents/:token': { body: contract.answerConsentSchema },
  'POST /api/open/invitations/:token': { body: contract.acceptInvitationSchema },
  'POST /api/open/set-up': { body: contract.setUpSchema },
  'POST /api/people': { body: contract.addPersonSchema },
  'PUT /api/people/:id': { body: contract.changePersonSchema },
  'POST /api/people/:id/link': {},
  'PUT /api/programme': { body: contract.saveProgrammeSchema },
  'GET /api/desk': { query: contract.deskQuerySchema },
  'GET /api/desk/members': { query: contract.deskGroupQuerySchema },
  'POST /api/desk/remedies': { body: contract.openRemediesSchema },
  'GET /api/remedies': { query: contract.workQuerySchema },
  'GET /api/remedies/sheet.pdf': { query: contract.workSheetQuerySchema },
  'POST /api/remedies/give': { body: contract.giveWorkSchema },
  'GET /api/looks': { query: contract.worthQuerySchema },
  'GET /api/looks.csv': { query: contract.worthQuerySchema },
  'POST /api/looks/rounds': { body: contract.seekLooksSchema },
  'POST /api/looks/give': { body: contract.giveLooksSchema },
  'GET /api/spots': { query: contract.spotListQuerySchema },
  'GET /api/spots.csv': { query: contract.spotCsvQuerySchema },
  'GET /api/spots/facets': { query: contract.spotFilterSchema },
  'GET /api/spots/rank': { query: contract.rankQuerySchema },
  'GET /api/spots/near': { query: contract.nearQuerySchema },
  'POST /api/spots': { body: contract.addSpotSchema },
  'POST /api/spots/withdraw': { body: contract.withdrawSchema },
  'PUT /api/spots/:id/photos/:photoId': { body: 'file' },
  'PUT /api/spots/:id/clearances': { body: 'file', query: contract.clearanceQuerySchema },
  'POST /api/sealed': { body: contract.sealedSchema },
  'POST /api/open/devices/:id/wiped': {},
  'POST /api/uploads': {},
  'PATCH /api/uploads/:id': { body: 'file' },
  'HEAD /api/uploads/:id': {},
  'POST /api/devices': { body: contract.registerDeviceSchema },
  'POST /api/devices/:id/wipe': {},
  'POST /api/aside/:id': { body: contract.decideAsideSchema },
  'POST /api/planting-days': { body: contract.newDaySchema },
  'PUT /api/planting-days/:id': { body: contract.changeDaySchema },
  'PUT /api/planting-days/:id/teams': { body: contract.keepTeamsSchema },
  'POST /api/planting-days/:id/teams/seek': { body: contract.seekTeamsSchema },
  'POST /api/planting-days/:id/link': {},
  'POST /api/planting-days/:id/people': { body: contract.addHelperSchema },
  'PUT /api/day-people/:id': { body: contract.changeHelperSchema },
  'POST /api/planting-days/:id/events': { body: contract.newDayEventSchema },
  'PUT /api/tools': { body: contract.countToolSchema },
  'PUT /api/waiver': { body: contract.waiverSchema },
  'POST /api/open/days/:token': { body: contract.registerSchema },
  'POST /api/open/places/:token': { body: contract.answerRegistrationSchema },
  'PUT /api/water/devices': { body: contract.saveDeviceSchema },
  'POST /api/water/devices/:deviceId/runs': { body: contract.calibrateSchema },
  'POST /api/water/invoice': { body: 'file' },
  'PUT /api/water/zones': { body: contract.saveZoneSchema },
  'POST /api/open/told/:token': { body: contract.tellOfTreeSchema },
  'PUT /api/open/told/:token/:id/photo': { body: 'file' },
  'POST /api/told/links/:id/revoke': {},
  'POST /api/told/links': { body: contract.makePlaceLinkSchema },
  'POST /api/told/:id/look': { body: contract.lookAtToldSchema },
  'POST /api/told/:id/drop': { body: contract.dropToldSchema },
  'POST /api/open/care/:token/watered': { body: contract.tellWateredSchema },
  'POST /api/open/care/:token/words': { body: contract.tellWordSchema },
  'POST /api/open/care/:token/deputies': { body: contract.nameDeputySchema },
  'POST /api/open/care/:token/wishes': { body: contract.careWishesSchema },
  'POST /api/spots/:id/care': { body: contract.giveCareSchema },
  'POST /api/care/:id/link': {},
  'POST /api/care/:id/revoke': {},
  'POST /api/care/words/:id/answer': { body: contract.answerCareSchema },
  'PUT /api/open/planted/:token/photo': { body: 'file' },
  'POST /api/built-reports/:id/revoke': {},
  'POST /api/open/planted/:token': { body: contract.reportBuiltSchema },
  'POST /api/spots/:id/built-reports': { body: contract.askReportSchema },
  'POST /api/assignments': { body: contract.assignSchema },
  'POST /api/assignments/take-over': { body: contract.takeOverSchema },
  'POST /api/assignments/:id/end': { body: contract.endAssignmentSchema },
  'POST /api/assignments/:id/hand-over': {},
  'POST /api/permits': { body: contract.permitSchema },
  'POST /api/spots/:id/consents': { body: contract.askConsentSchema },
  'POST /api/consents/:id/revoke': {},
  'POST /api/records': { body: contract.sendRecordSchema },
  'POST /api/records/batch': { body: contract.sendBatchSchema },
  'POST /api/clock-questions/:id': { body: contract.clockAnswerSchema },
  'POST /api/imports/preview': { body: 'file', query: contract.importQuerySchema.pick({ fileName: true }) },
  'POST /api/imports': { body: 'file', query: contract.importQuerySchema },
  'GET /api/season': { query: contract.seasonQuerySchema },
  'GET /api/find': { query: contract.findQuerySchema },
  'POST /api/views': { body: contract.saveViewSchema },
  'PUT /api/views/:id': { body: contract.changeViewSchema },
  'GET /api/map/extent': { query: contract.spotFilterSchema },
  'GET /api/map/booked': { query: contract.deskQuerySchema },
  'GET /api/map/spots/:z/:x/:y': { query: contract.spotTileQuerySchema },
  'PUT /api/map/layers/:layer': { body: 'file' },
  'PUT /api/map/base.pmtiles': { body: 'file', query: z.object({ fileName: z.string() }) },
  'PUT /api/rules': { body: contract.saveRulesSchema },
  'PUT /api/practices': { body: contract.savePracticeSchema },
  'POST /api/practices/adopt': { body: contract.adoptPracticeSchema },
  'POST /api/practices/adopt/stop': {},
  'POST /api/deliveries': { body: contract.newDeliverySchema },
  'PUT /api/deliveries/:id': { body: contract.deliveryStateSchema },
  'POST /api/deliveries/:id/water': { body: contract.waterHeldSchema },
  'GET /api/claims': { query: contract.claimQuerySchema },
  'PUT /api/lots/:id': { body: contract.receiveLotSchema },
  'POST /api/lots/:id/trees': { body: contract.newLotTreeSchema },
  'PUT /api/lot-trees/:id/photo': { body: 'file', query: contract.photoPlaceSchema },
  'GET /api/materials': { query: contract.materialsQuerySchema },
  'GET /api/materials.csv': { query: contract.materialsQuerySchema },
  'GET /api/materials.pdf': { query: contract.materialsQuerySchema },
  'PUT /api/store': { body: contract.storeSchema },
  'POST /api/cards': { body: contract.cardsQuerySchema },
  'POST /api/water/rules': { body: contract.tryRulesSchema },
  'GET /api/water/trees': { query: contract.waterListQuerySchema },
  'GET /api/water/trees.csv': { query: contract.waterCsvQuerySchema },
  'POST /api/water/weather': { body: 'file', query: contract.weatherImportQuerySchema },
  'PUT /api/water/gauge': { body: contract.rainGaugeSchema },
  'PUT /api/water/trucks': { body: contract.waterTruckSchema },
  'PUT /api/water/fill-points': { body: contract.fillPointSchema },
  'POST /api/water/rounds': { body: contract.seekRoundsSchema },
  'POST /api/water/rounds/:id/give': { body: contract.giveRoundSchema },
  'POST /api/tickets': { body: contract.raiseTicketSchema },
  'POST /api/tickets/:id/remind': { body: z.strictObject({ utility: z.string() }) },
  'POST /api/tickets/:id/retry': {},
  'POST /api/tickets/:id/withdraw': {},
  'PUT /api/species': { body: contract.saveSpeciesSchema },
  'POST /api/species/import': { body: 'file' },
  'POST /api/offers/import': { body: 'file', query: contract.offersQuerySchema },
  'POST /api/offers/read': {},
  'POST /api/lists': { body: contract.askListSchema },
  'POST /api/lists/:id/cancel': {},
  'POST /api/lists/:id/accept': {},
};

/** Doors that take something and say nowhere what: a new one fails until it has its line. */
export const unasked = (): string[] =>
  Object.keys(doors).filter((door) => /^(POST|PUT) /.test(door) && !(door in asked));

/** Left out of a walk: they end the session that walks, or answer for as long as one listens. */
const shut = new Set(['DELETE /api/session', 'PUT /api/session/password', 'POST /api/session', 'GET /api/live']);
/** Those every door can be asked at. */
export const walked = Object.keys(doors).filter((door) => !shut.has(door));

const hostile: fc.Arbitrary<Json> = fc.oneof(
  fc.constantFrom<Json>(
    null,
    true,
    '',
    ' ',
    0,
    -1,
    0.1,
    1e308,
    -1e308,
    2_147_483_648,
    9_007_199_254_740_993,
    'nul\0',
    String.fromCharCode(0xd800),
    '\u202eabc',
    '0000-00-00',
    '9999-12-31',
    '2026-02-30',
    '2026-13-01T25:00:00Z',
    "'; drop table spot; --",
    '%_\\%',
    '<script>alert(1)</script>',
    '../../etc/passwd',
    '=1+1',
    [],
    {},
    [[[[]]]],
    { __proto__: null, constructor: { prototype: {} } },
  ),
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
  fc.array(fc.integer(), { maxLength: 5 }),
  fc.constant('x'.repeat(20_000)),
);

function text({ format, minLength = 0, maxLength = 40 }: JsonSchema): fc.Arbitrary<Json> {
  if (format === 'uuid') return fc.uuid();
  if (format === 'date')
    return fc
      .date({ min: new Date('2020-01-01'), max: new Date('2029-01-01'), noInvalidDate: true })
      .map((day) => day.toISOString().slice(0, 10));
  if (format === 'date-time')
    return fc
      .date({ min: new Date('2020-01-01'), max: new Date('2029-01-01'), noInvalidDate: true })
      .map((day) => day.toISOString());
  return fc.string({ unit: 'grapheme', minLength: Math.min(minLength, 40), maxLength: Math.min(maxLength, 40) });
}

function ofSchema(schema: JsonSchema, root: JsonSchema & { $defs?: Record<string, JsonSchema> }): fc.Arbitrary<Json> {
  const of = (part: JsonSchema) => ofSchema(part, root);
  if (schema.$ref) return of(root.$defs?.[schema.$ref.split('/').at(-1) ?? ''] ?? {});
  if (schema.const !== undefined) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const either = schema.anyOf ?? schema.oneOf;
  if (either) return fc.oneof(...either.map(of));
  if (schema.allOf) return fc.tuple(...schema.allOf.map(of)).map((parts) => Object.assign({}, ...parts) as Json);
  switch (schema.type) {
    case 'string':
      return text(schema);
    case 'integer':
      return fc.integer({ min: Math.max(schema.minimum ?? -1000, -1e6), max: Math.min(schema.maximum ?? 1000, 1e6) });
    case 'number':
      return fc.double({ min: schema.minimum ?? -1000, max: schema.maximum ?? 1000, noNaN: true });
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    case 'array':
      if (schema.prefixItems) return fc.tuple(...schema.prefixItems.map(of)).map((items) => [...items]);
      return fc.array(of(schema.items ?? {}), {
        minLength: schema.minItems ?? 0,
        maxLength: Math.min(schema.maxItems ?? 3, Math.max(3, schema.minItems ?? 0)),
      });
    case 'object': {
      const known = Object.fromEntries(Object.entries(schema.properties ?? {}).map(([key, part]) => [key, of(part)]));
      return fc.record(known, { requiredKeys: (schema.required ?? []) as string[], noNullPrototype: true });
    }
    default:
      return hostile;
  }
}

const arbitraries = new Map<z.ZodType, fc.Arbitrary<Json>>();
function ofZod(schema: z.ZodType): fc.Arbitrary<Json> {
  const known = arbitraries.get(schema);
  if (known) return known;
  const json = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as JsonSchema;
  const made = ofSchema(json, json);
  arbitraries.set(schema, made);
  return made;
}

/** The same value with one of its leaves, or one of its branches, put out by something else. */
function spoil(value: Json, where: readonly number[], by: Json): Json {
  const [first, ...rest] = where;
  if (first === undefined || typeof value !== 'object' || value === null) return by;
  const keys = Object.keys(value);
  const key = keys[first % Math.max(1, keys.length)];
  if (key === undefined) return by;
  const spoiled = spoil((value as Record<string, Json>)[key] ?? null, rest, by);
  if (Array.isArray(value)) return value.map((item, i) => (String(i) === key ? spoiled : item));
  return { ...value, [key]: spoiled };
}

const bytes: fc.Arbitrary<Uint8Array> = fc.oneof(
  fc.uint8Array({ maxLength: 200 }),
  fc
    .constantFrom(
      '',
      '{}',
      '[',
      'ref,place\n"',
      'ref,place,lng,lat\nA-1,x,1,1\n',
      '{"type":"FeatureCollection","features":[{}]}',
      '%PDF-1.7',
      '\xff\xd8\xff\xe0',
      'PMTiles\x03',
    )
    .map((made) => Uint8Array.from(Buffer.from(made, 'latin1'))),
);

export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: Json | Uint8Array | undefined;
}

/** Requests at one door: half as its schema has them, half with something put out; ids of things that are there too. */
export function requestsAt(door: string, ids: readonly string[]): fc.Arbitrary<Asked> {
  const [method = '', template = ''] = door.split(' ');
  const { body, query } = asked[door] ?? {};
  const id = fc.oneof({ weight: 6, arbitrary: fc.constantFrom(...ids) }, fc.uuid(), fc.string({ maxLength: 20 }));
  const layer = fc.constantFrom('water', 'street', 'nothing');
  const parts = template.match(/:\w+/g) ?? [];
  const filled = fc
    .tuple(
      ...parts.map((part) =>
        part === ':layer'
          ? layer
          : part === ':format'
            ? fc.constantFrom('csv', 'geojson', 'x')
            : /^:[xyz]$/.test(part)
              ? fc.oneof(fc.nat(20).map(String), fc.string({ maxLength: 5 }))
              : id,
      ),
    )
    .map((values) =>
      parts.reduce((path, part, i) => path.replace(part, encodeURIComponent(values[i] ?? '')), template),
    );
  const spoiled = (whole: fc.Arbitrary<Json>) =>
    fc
      .tuple(whole, fc.option(fc.tuple(fc.array(fc.nat(30), { maxLength: 5 }), hostile)))
      .map(([value, fault]) => (fault ? spoil(value, fault[0], fault[1]) : value));
  const asQuery = query
    ? spoiled(ofZod(query)).map((value) => {
        const entries = typeof value === 'object' && value !== null ? Object.entries(value) : [];
        const said = entries.map(
          ([key, one]) => [key, typeof one === 'string' ? one : JSON.stringify(one)] as [string, string],
        );
        return said.length > 0
          ? `?${new URLSearchParams(said.map(([key, one]) => [key, one.slice(0, 300)])).toString()}`
          : '';
      })
    : fc.constant('');
  const asBody: fc.Arbitrary<Json | Uint8Array | undefined> =
    body === 'file'
      ? bytes
      : body
        ? spoiled(ofZod(body))
        : method === 'GET' || method === 'DELETE'
          ? fc.constant(undefined)
          : fc.constant({});
  return fc.tuple(filled, asQuery, asBody).map(([path, search, made]) => ({ method, path: path + search, body: made }));
}
