import type { Claim } from '../core/advise';

/** What two claims of a page say against each other; `undefined` where both can be so. */
function contradiction(one: Claim, other: Claim): string | undefined {
  if (one.of !== other.of || one.figure !== other.figure) return undefined;
  const isSame = one.who === other.who && one.than === other.than;
  const isTurned = one.who === other.than && one.than === other.who;
  const says = [one.says, other.says].sort().join(' and ');
  if (isSame && one.says === 'is' && other.says === 'is' && one.value !== other.value)
    return `${one.who} is ${one.value ?? ''} and ${other.value ?? ''}`;
  if (isSame && says === 'fails and serves') return `${one.who} serves and does not`;
  if (isTurned && says === 'better and better') return `${one.who} is better than ${one.than ?? ''}, and the other way round`;
  if (isTurned && says === 'better and unbeaten') return `${one.who} and ${one.than ?? ''} beat each other`;
  return (isSame || isTurned) && says === 'alike and better' ? `${one.who} is better than ${one.than ?? ''}, and like it` : undefined;
}

/** All that a page says against itself. */
export function contradictions(claims: readonly Claim[]): string[] {
  const found = claims.flatMap((one, at) =>
    claims.slice(at + 1).flatMap((other) => {
      const says = contradiction(one, other);
      return says === undefined ? [] : [`${one.of}, ${one.figure}: ${says}`];
    }),
  );
  return [...new Set(found)];
}
