/** A text that a spreadsheet would run as a formula is given an apostrophe, which `unescapeFormula` takes off again. */
export const escapeFormula = (text: string): string => (/^'*[=+\-@]/.test(text) ? `'${text}` : text);

export const unescapeFormula = (text: string): string => text.replace(/^'(?='*[=+\-@])/, '');
