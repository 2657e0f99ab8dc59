/**
 * The least of a function of several variables, by the simplex of Nelder and Mead (1965, from memory; coefficients 1, 2, ½ and ½).
 *
 * @param cost    what is made least; may be uneven, but finite
 * @param start   where it begins
 * @param reaches how far the first simplex reaches along each variable
 * @param rounds  how often it moves
 */
export function nelderMead(
  cost: (at: readonly number[]) => number,
  start: readonly number[],
  reaches: readonly number[],
  rounds: number,
): number[] {
  const corner = (at: readonly number[]) => ({ at: [...at], value: cost(at) });
  const simplex = [
    corner(start),
    ...start.map((_, axis) => corner(start.map((each, index) => each + (index === axis ? (reaches[axis] ?? 0.1) : 0)))),
  ];
  const byValue = () => simplex.sort((one, other) => one.value - other.value);
  for (let round = 0; round < rounds; round += 1) {
    byValue();
    const [best, worst, next] = [simplex[0], simplex.at(-1), simplex.at(-2)];
    if (!best || !worst || !next || worst.value - best.value < 1e-9) break;
    const centre = start.map((_, axis) => simplex.slice(0, -1).reduce((sum, { at }) => sum + (at[axis] ?? 0), 0) / (simplex.length - 1));
    const along = (by: number) => corner(centre.map((each, axis) => each + by * (each - (worst.at[axis] ?? 0))));
    const reflected = along(1);
    if (reflected.value < best.value) {
      const expanded = along(2);
      simplex[simplex.length - 1] = expanded.value < reflected.value ? expanded : reflected;
    } else if (reflected.value < next.value) simplex[simplex.length - 1] = reflected;
    else {
      const contracted = along(reflected.value < worst.value ? 0.5 : -0.5);
      if (contracted.value < Math.min(reflected.value, worst.value)) simplex[simplex.length - 1] = contracted;
      else
        for (let each = 1; each < simplex.length; each += 1)
          simplex[each] = corner((simplex[each]?.at ?? []).map((value, axis) => (value + (best.at[axis] ?? 0)) / 2));
    }
  }
  return byValue()[0]?.at ?? [...start];
}
