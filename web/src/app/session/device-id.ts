import { v4 as uuidv4 } from 'uuid';

export const deviceKey = 'sombra.device';

/** The name of this browser among devices, made when it is first asked for; `null` where it keeps nothing. */
export function deviceId(): string | null {
  try {
    return localStorage.getItem(deviceKey) ?? keepDeviceId(uuidv4());
  } catch {
    return null;
  }
}

/** @throws where this browser keeps nothing */
export function keepDeviceId(id: string): string {
  localStorage.setItem(deviceKey, id);
  return id;
}

/** Begins anew under another id. */
export function forgetDeviceId(): void {
  try {
    localStorage.removeItem(deviceKey);
  } catch {
    // Nothing was kept.
  }
}
