/** Made when it is first needed: it takes long, and a start can do without. */
let format: Intl.ListFormat | undefined;

/** `a`, `a and b`, `a, b and c`. */
export function listed(names: readonly string[]): string {
  format ??= new Intl.ListFormat('en-GB');
  return format.format(names);
}
