/**
 * The most values of a meter that a run holds, over all its quantities. What may come in may go out again and come back: the same limit holds for
 * a log, for the logbook in this browser, and for a logbook in a file.
 */
export const MOST_VALUES = 10_000_000;

/** A row of a text longer than this is no row, in characters: a quotation mark was not closed. */
export const LONGEST_ROW = 1_000_000;

/** How deep values lie in one another in a logbook, at the most. */
export const DEEPEST = 40;

/** The longest text of one run or one picture in a logbook, in characters: browsers hold no text much longer. */
export const LONGEST_PIECE = 400_000_000;
