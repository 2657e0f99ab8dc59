/** Hands a text to the person as a file. */
export function saveFile(name: string, text: string, type: 'text/csv' | 'text/calendar' | 'application/json'): void {
  saveBlob(name, new Blob([text], { type: `${type};charset=utf-8` }));
}

/** Hands a file to the person. */
export function saveBlob(name: string, file: Blob): void {
  const address = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => {
    URL.revokeObjectURL(address);
  }, 10_000);
}

/** A text made fit for a file name. */
export function fileName(...parts: string[]): string {
  return (
    parts
      .join(' ')
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 80) || 'inkpath'
  );
}
