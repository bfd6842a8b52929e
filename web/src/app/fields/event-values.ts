/** The text of the field an event came from; of a select, the value of one of its options. */
export const textOf = <T extends string = string>(event: Event): T =>
  (event.target as HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement).value as T;

/** The number a slider an event came from stands at. */
export const numberOf = (event: Event): number => (event.target as HTMLInputElement).valueAsNumber;

/** Whether the box an event came from is ticked. */
export const tickOf = (event: Event): boolean => (event.target as HTMLInputElement).checked;

/** The files that were chosen in the field an event came from. */
export const filesOf = (event: Event): FileList | null => (event.target as HTMLInputElement).files;

/** Empties the field an event came from, so that the same file can be chosen again. */
export function clearOf(event: Event): void {
  (event.target as HTMLInputElement).value = '';
}

/** The one file chosen in the field an event came from, which is empty for the next. */
export function takeFile(event: Event): File | undefined {
  const file = filesOf(event)?.[0];
  clearOf(event);
  return file;
}
