/**
 * A text that a spreadsheet would run as a formula, after blanks and tabs too, is given an apostrophe, which `unescapeFormula` takes off again.
 */
export const escapeFormula = (text: string): string => (/^'*\s*[=+\-@]/.test(text) ? `'${text}` : text);

export const unescapeFormula = (text: string): string => text.replace(/^'(?='*\s*[=+\-@])/, '');
