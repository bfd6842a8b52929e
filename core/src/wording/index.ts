export * from './measured';
export * from './names';
export * from './say-remedy';
export * from './say-reason';
export * from './say-facts';
export * from './say-step';
export * from './say-amount';
export * from './say-put-back';
