export * from './reasons';
export * from './record';
export * from './clock';
export * from './measured-drop';
export * from './spot-basis';
export * from './spot-life';
export * from './spot-periods';
