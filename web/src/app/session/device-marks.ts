import { deviceKey } from './device-id';

/** So long after the last word from the server a device still opens by itself. */
export const opensForDays = 7;
export const dayMs = 86_400_000;

/** Where a session is kept on this device, so that it opens without a server. */
export const sessionKey = 'sombra.session';
const leavingKey = 'sombra.leaving';

/** Whether somebody was signed in here when this device was left. */
export const wasIn = (): boolean => isKept(sessionKey);
/** Whether this device was ever here: something may wait on it. */
export const wasHere = (): boolean => isKept(deviceKey);
/** Whether somebody left this device and the server does not know yet. */
export const isLeaving = (): boolean => isKept(leavingKey);

/** This device opens no more without a server. */
export const forgetSession = (): void => put(sessionKey, null);
/** Notes that somebody left this device, until the server knows. */
export const leave = (): void => put(leavingKey, 'yes');
export const left = (): void => put(leavingKey, null);

function isKept(key: string): boolean {
  try {
    return localStorage.getItem(key) !== null;
  } catch {
    return false;
  }
}

/** A browser that keeps nothing opens with the server alone, and its session ends by itself. */
function put(key: string, value: string | null): void {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // Nothing is kept.
  }
}
