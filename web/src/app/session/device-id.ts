const key = 'sombra.device';

/** The name of this browser among devices, made when it is first asked for; `null` where it keeps nothing. */
export function deviceId(): string | null {
  try {
    const kept = localStorage.getItem(key);
    if (kept) return kept;
    const made = randomId();
    localStorage.setItem(key, made);
    return made;
  } catch {
    return null;
  }
}

/** Begins anew under another id. */
export function forgetDeviceId(): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // Nothing was kept.
  }
}

/** Over plain http browsers make no UUID themselves. */
function randomId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}
