/** A text that a spreadsheet would run as a formula is given an apostrophe, which `untame` takes off again. */
export const tame = (text: string): string => (/^'*[=+\-@]/.test(text) ? `'${text}` : text);

export const untame = (text: string): string => text.replace(/^'(?='*[=+\-@])/, '');
