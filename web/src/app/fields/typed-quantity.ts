import { computed, effect, signal, untracked } from '@angular/core';
import { fieldText, readQuantity, typedFault, type Quantity, type ReadQuantity, type UnitSystem } from '@sombra/core';

export interface TypedQuantityOf {
  readonly quantity: Quantity;
  readonly units: UnitSystem;
  readonly range?: { readonly min: number; readonly max: number } | undefined;
}

/**
 * What stands in a field for a quantity: the text in the reader's units, and the exact metric value behind it. What
 * nobody typed keeps its value to the last digit, and a change of units shows the same value, it does not read the
 * digits anew. Made in an injection context.
 */
export class TypedQuantity {
  private readonly standing = signal<Standing>({ text: '', was: null, as: null });
  readonly text = computed(() => this.standing().text);
  readonly read = computed((): ReadQuantity => {
    const { text, was } = this.standing();
    return readQuantity(text, { ...this.of(), was });
  });
  /** The value as it is meant, in metric; `null` while there is none. */
  readonly value = computed(() => {
    const read = this.read();
    return read.kind === 'value' ? read.value : null;
  });
  readonly fault = computed(() => {
    const { text, was } = this.standing();
    return typedFault(text, { ...this.of(), was });
  });

  constructor(
    private readonly of: () => TypedQuantityOf,
    /** Called when a change of units has changed the text. */
    shown: () => void = () => undefined,
  ) {
    effect(() => {
      const now = of();
      const { text, was, as } = untracked(this.standing);
      if (as === null || (now.units === as.units && now.quantity === as.quantity)) return;
      const read = readQuantity(text, { ...as, was });
      if (read.kind === 'value') this.fill(read.value);
      untracked(shown);
    });
  }

  fill(value: number | null | undefined): void {
    const { quantity, units } = untracked(this.of);
    const was = value ?? null;
    this.standing.set({ text: was === null ? '' : fieldText(was, quantity, units), was, as: { quantity, units } });
  }

  type(text: string): void {
    const { quantity, units } = untracked(this.of);
    this.standing.update(({ was }) => ({ text, was, as: { quantity, units } }));
  }
}

interface Standing {
  readonly text: string;
  /** What the field was filled with. */
  readonly was: number | null;
  /** What the text was written as. */
  readonly as: Pick<TypedQuantityOf, 'quantity' | 'units'> | null;
}
