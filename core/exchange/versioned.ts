/** Anything with a schema number, before it is known to fit the present one. */
export type Versioned = { schema: number } & Record<string, unknown>;

/** Raises a value from the schema of its key to the next one. Pure; kept for ever, with a fixture of the old shape. */
export type Migrations = Readonly<Record<number, (old: Versioned) => Versioned>>;

export type VersionedShape = Record<string, unknown>;
export const isShape = (value: unknown): value is VersionedShape => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Raises every item of a list; what is no list is left for the schema to complain of. */
export const listOf = (value: unknown, raise: (each: unknown) => unknown): unknown => (Array.isArray(value) ? value.map(raise) : value);
