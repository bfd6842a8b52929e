import { defaultGroundRules, defaultMatchRules, defaultWorkRules } from '@sombra/core';

/** What a spot's detail carries beside its records: the shipped rules, and no ticket asked for yet. */
export const spotLeave = {
  rules: { ground: defaultGroundRules, match: defaultMatchRules, work: defaultWorkRules },
  leave: { tickets: [], clearances: [], permits: [], consents: [] },
  windows: [],
  plantOn: null,
  offers: [],
  ticketsSince: '2100-01-01',
};
