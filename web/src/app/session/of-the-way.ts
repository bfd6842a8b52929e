const ofGateways = [502, 503, 504];
/** What the server itself says of a failure carries its code. */
const isOurs = (body: unknown): boolean => typeof body === 'object' && body !== null && 'code' in body;

/** Something between says that it reached nothing: the worker of this page, or a proxy. */
export const isOfTheWay = (status: number, body: unknown): boolean => ofGateways.includes(status) && !isOurs(body);
