export * from './people';
export * from './town';
export * from './seed';
export type { DemoFeature, DemoLayer } from './base-map';
export type { DemoDay, DemoRound, DemoTicket } from './bookings';
export type { DemoView } from './views';
export * from './nurseries';
export * from './deliveries';
export type { DemoSpot } from './spot';
