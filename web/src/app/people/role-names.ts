import type { Role } from '@sombra/contract';

export const roleNames: Readonly<Record<Role, string>> = {
  administrator: 'Administrator',
  coordinator: 'Coordinator',
  crew_lead: 'Crew lead',
  inspector: 'Inspector',
  waterer: 'Waterer',
  viewer: 'Viewer',
};
