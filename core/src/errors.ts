/**
 * Errors every package shares. Messages say what was received and the rule it broke; they echo numbers,
 * enum members and ids only. The words people read are chosen in `wording`.
 */
export interface ErrorDetails {
  readonly [key: string]: unknown;
}

export abstract class SombraError extends Error {
  abstract readonly code: string;
  constructor(
    message: string,
    readonly path: string,
    readonly details: ErrorDetails = {},
  ) {
    super(message);
    this.name = new.target.name;
  }
}

/** A value outside the range its docstring promises. */
export class InvalidInputError extends SombraError {
  readonly code = 'invalid_input';
}

export class NotFoundError extends SombraError {
  readonly code = 'not_found';
}

/** Someone else changed the thing first, or the record contradicts one already kept. */
export class ConflictError extends SombraError {
  readonly code = 'conflict';
}

export class ForbiddenError extends SombraError {
  readonly code = 'forbidden';
}

export interface NumberRange {
  readonly min: number;
  readonly max: number;
  readonly unit: string;
}

/** @throws InvalidInputError for NaN or infinity */
export function requireFinite(path: string, value: number): number {
  if (!Number.isFinite(value)) throw new InvalidInputError(`${path} must be a number, got ${value}`, path);
  return value;
}

/** @throws InvalidInputError for a number that is not whole, or outside the range */
export function requireWhole(path: string, value: number, range: NumberRange): number {
  if (Number.isInteger(value)) return requireWithin(path, value, range);
  throw new InvalidInputError(`${path} must be a whole number, got ${value}`, path);
}

/**
 * Returns `value` when it is a finite number within the range, both ends included.
 * @throws InvalidInputError naming the path, the value and the limits; NaN and infinity are refused too.
 */
export function requireWithin(path: string, value: number, range: NumberRange): number {
  if (!Number.isFinite(value) || value < range.min || value > range.max) {
    throw new InvalidInputError(`${path} must be within ${range.min}–${range.max} ${range.unit}, got ${value}`, path, {
      received: value,
      min: range.min,
      max: range.max,
      unit: range.unit,
    });
  }
  return value;
}
