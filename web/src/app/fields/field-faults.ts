/** Who knows what the server found wrong, field by field; a form that sends provides it to its fields. */
export abstract class FieldFaults {
  abstract faultIn(name: string): string | null;
}
