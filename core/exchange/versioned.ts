/** Anything with a schema number, before it is known to fit the present one. */
export type Versioned = { schema: number } & Record<string, unknown>;

/** Raises a value from the schema of its key to the next one. Pure; kept for ever, with a fixture of the old shape. */
export type Migrations = Readonly<Record<number, (old: Versioned) => Versioned>>;
