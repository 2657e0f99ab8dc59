/** A text as a sentence begins with it. */
export const upperFirst = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A title as it stands in a sentence. */
export const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/;
/** A name that stands within a sentence: one that is read from right to left moves no figure beside it (Unicode Standard Annex 9, isolates). */
export const isolated = (name: string): string => (RIGHT_TO_LEFT.test(name) ? `\u2068${name}\u2069` : name);

/** A text of so many characters at most. */
export const clipped = (text: string, max: number): string => (text.length > max ? `${text.slice(0, max - 1).trimEnd()}…` : text);

/** The longest that a sentence repeats of what was typed, of a cell, a name or an id, in characters: whoever reads it knows by then which it is. */
export const MOST_QUOTED = 80;

/** What was typed, or a cell, as a sentence repeats it. */
export const quoted = (text: string): string => `“${clipped(text, MOST_QUOTED)}”`;
