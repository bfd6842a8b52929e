import type { Role } from '@sombra/contract';

/** What each role goes out to besides what it is assigned: the spots that wait for it. */
export const goesOutTo: Partial<Readonly<Record<Role, Readonly<Record<string, string>>>>> = {
  crew_lead: { stage: 'day' },
  inspector: { due: 'week', planted: 'yes' },
  waterer: { probe: 'dry,slightly_dry' },
};
