import type { KeptDevice } from '@sombra/contract';
import { formatNumber, type DeviceForm, type DeviceLooks } from '@sombra/core';

export const formNames: Readonly<Record<DeviceForm, string>> = {
  carried: 'carried',
  standing: 'stood beside it',
  stem: 'hung on the stem',
  ground: 'on the ground',
  buried: 'sunk in',
  piped: 'piped',
  truck: 'from the truck',
};
export const looksNames: Readonly<Record<DeviceLooks, string>> = {
  hidden: 'hardly seen',
  plain: 'seen',
  glaring: 'glaring',
};

/** Hours and minutes, for something that seeps. */
export function sayHours(hours: number | null): string {
  if (hours === null) return 'not known';
  if (hours < 1) return `${Math.max(1, Math.round(hours * 60))} min`;
  return `${formatNumber(hours, hours < 10 ? 1 : 0)} h`;
}

/** What each device was measured to run, for a choice. L/h */
export const measuredFlows = (devices: readonly KeptDevice[]): Record<string, number> =>
  Object.fromEntries(devices.flatMap(({ id, measured }) => (measured ? [[id, measured.lPerH]] : [])));
