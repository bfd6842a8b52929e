import { defaultGroundRules, defaultMatchRules } from '@sombra/core';

/** What a spot's detail carries beside its records: the shipped rules, and no ticket asked for yet. */
export const spotLeave = {
  rules: { ground: defaultGroundRules, match: defaultMatchRules },
  leave: { tickets: [], clearances: [], permits: [], consents: [] },
  ticketsSince: '2100-01-01',
};
