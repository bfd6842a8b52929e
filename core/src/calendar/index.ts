export * from './calendar';
export * from './working-days';
export * from './time-of-day';
