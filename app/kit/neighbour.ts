/** Where the demo logbook is served beside this one; `undefined` where it is not, or nobody can say. */
export async function demoAddress(): Promise<string | undefined> {
  try {
    const answer = (await (await fetch('/inkpath', { signal: AbortSignal.timeout(3000) })).json()) as { demoPort?: unknown };
    return typeof answer.demoPort === 'number' ? `${location.protocol}//${location.hostname}:${answer.demoPort}/` : undefined;
  } catch {
    return undefined;
  }
}
