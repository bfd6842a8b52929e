export * from './options';
export * from './practice';
export * from './presets';
export * from './choices';
