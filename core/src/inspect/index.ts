export * from './root-arcs';
export * from './verdict';
