/**
 * Stops a computation that was handed something it has no meaning for.
 *
 * @param min    the smallest value allowed, in the unit of the figures
 * @param figures  named figures, so the error can say which one was wrong
 * @throws {RangeError} naming the first figure that is below `least` or not finite
 */
export function requireAtLeast(min: number, figures: Readonly<Record<string, number>>): void {
  for (const [name, value] of Object.entries(figures)) {
    if (!Number.isFinite(value) || value < min) {
      throw new RangeError(`${name} must be a number of at least ${min}, not ${value}.`);
    }
  }
}
