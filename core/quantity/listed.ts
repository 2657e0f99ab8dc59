/** Made when it is first needed: it takes long, and a start can do without. */
let format: Intl.ListFormat | undefined;

/** `a`, `a and b`, `a, b and c`. */
export function listed(names: readonly string[]): string {
  format ??= new Intl.ListFormat('en-GB');
  return format.format(names);
}

/** `1 run`, `12 runs`, `1,000 runs`. */
export const howMany = (count: number, one: string, many = `${one}s`): string =>
  count === 1 ? `1 ${one}` : `${count.toLocaleString('en')} ${many}`;

/** Names one of which is meant: `A`, `A or B`, `A, B or C`. */
export const either = (names: readonly string[]): string =>
  names.length < 3 ? names.join(' or ') : `${names.slice(0, -1).join(', ')} or ${names.at(-1) ?? ''}`;
