export * from './urgency';
