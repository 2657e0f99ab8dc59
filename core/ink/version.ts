/** Version of everything stored and exported. A change of shape raises it and adds a migration (exchange/migrate.ts). */
export const SCHEMA = 3;
