import type { UnitSystem } from '@sombra/core';

export interface DemoPerson {
  readonly signIn: string;
  readonly password: string;
  readonly name: string;
  readonly role: 'administrator' | 'coordinator' | 'crew_lead' | 'inspector' | 'waterer' | 'viewer';
  readonly units: UnitSystem;
}

/** Invented people of the demo town; their passwords are meant to be known. */
export const demoPeople: readonly DemoPerson[] = [
  { signIn: 'ines', password: 'shade-walks', name: 'Inês Tavoro', role: 'coordinator', units: 'metric' },
  { signIn: 'bento', password: 'shade-walks', name: 'Bento Quarel', role: 'crew_lead', units: 'metric' },
  { signIn: 'marta', password: 'shade-walks', name: 'Marta Velho-Lume', role: 'inspector', units: 'metric' },
  { signIn: 'duarte', password: 'shade-walks', name: 'Duarte Ombra', role: 'coordinator', units: 'us' },
  { signIn: 'tia', password: 'shade-walks', name: 'Tia Rebelo-Sol', role: 'waterer', units: 'metric' },
  { signIn: 'visitor', password: 'shade-walks', name: 'Council visitor', role: 'viewer', units: 'metric' },
  { signIn: 'admin', password: 'shade-walks', name: 'Programme office', role: 'administrator', units: 'metric' },
];
