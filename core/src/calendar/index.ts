export * from './calendar';
export * from './working-days';
