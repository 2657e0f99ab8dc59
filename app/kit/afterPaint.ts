const waiting: (() => void)[] = [];

/** Does something once the page has been painted as it stands, one piece of work after another, so that keys are heard in between. */
export function afterPaint(work: () => void): void {
  waiting.push(work);
  if (waiting.length === 1) requestAnimationFrame(() => setTimeout(next));
}

function next(): void {
  waiting[0]?.();
  waiting.shift();
  if (waiting.length > 0) setTimeout(next);
}
