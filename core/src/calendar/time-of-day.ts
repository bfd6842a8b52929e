/** `09:05`, of minutes since midnight, to the whole minute. */
export function clockOf(minutes: number): string {
  const whole = Math.round(minutes);
  return `${String(Math.floor(whole / 60)).padStart(2, '0')}:${String(whole % 60).padStart(2, '0')}`;
}

/** Minutes since midnight of `09:05`; `null` for what is no time of a day. 24:00 is its end. */
export function minutesOfClock(text: string): number | null {
  const [, hours, minutes] = /^(\d{1,2}):(\d{2})$/.exec(text) ?? [];
  const at = Number(hours) * 60 + Number(minutes);
  return hours !== undefined && at <= 1440 && Number(minutes) < 60 ? at : null;
}
